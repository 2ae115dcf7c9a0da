import { expect, it } from 'vitest';
import { readLanguages } from './languages.ts';

it('languages are those whose models are installed; another one is said with what to do', () => {
  expect(readLanguages('')).toEqual([]);
  expect(readLanguages(' jpn, eng')).toEqual(['jpn', 'eng']);
  for (const not of ['xyz', '../eng'])
    expect(readLanguages(`jpn,${not}`)).toEqual({
      says: `READ_LANGUAGES names ${not}, whose letters cannot be read here: npm install @tesseract.js-data/${not}, or take it out`,
    });
});
