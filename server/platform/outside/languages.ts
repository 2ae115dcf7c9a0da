import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';

/** The model that is tried first: its letters are those of all languages written with Latin ones. */
export const LATIN = 'eng';

const require = createRequire(import.meta.url);

/** Where the model of a language lies.  @param language as the package @tesseract.js-data/… names it  @throws where that is not installed */
export const modelOf = (language: string): string =>
  join(dirname(require.resolve(`@tesseract.js-data/${language}/package.json`)), '4.0.0_best_int');

/** The languages of a setting, "jpn,kor"; or what to do where the model of one is not installed. */
export function readLanguages(setting: string): readonly string[] | { says: string } {
  const languages = setting
    .split(',')
    .map((language) => language.trim())
    .filter(Boolean);
  const missing = languages.find((language) => !isInstalled(language));
  if (missing === undefined) return languages;
  const says = `READ_LANGUAGES names ${missing}, whose letters cannot be read here: npm install @tesseract.js-data/${missing}, or take it out`;
  return { says };
}

function isInstalled(language: string): boolean {
  try {
    return /^[a-z_]+$/.test(language) && modelOf(language) !== '';
  } catch {
    return false;
  }
}
