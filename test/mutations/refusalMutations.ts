import { readdirSync, readFileSync } from 'node:fs';
import type { Mutation } from './mutations.ts';

/** The features whose refusals are all taken out, one after the other; those of the others have mutations by hand. */
const FEATURES = ['gather', 'receipts', 'session', 'setup'].map((name) => `server/features/${name}`);
const REFUSAL = /if \(([^\n]+)\)\s+throw new Refused\('([\w-]+)'/g;

/** Every refusal of some features never made: what is refused is found in the code, so that a new one is tried by itself. */
export const REFUSAL_MUTATIONS: Mutation[] = FEATURES.flatMap((folder) =>
  readdirSync(folder, { recursive: true })
    .map((file) => `${folder}/${String(file)}`)
    .filter((file) => file.endsWith('.ts') && !file.includes('.test.'))
    .sort()
    .flatMap((file) => refusalsOf(file, folder)),
);

function refusalsOf(file: string, folder: string): Mutation[] {
  const source = readFileSync(file, 'utf8');
  return [...source.matchAll(REFUSAL)].map((match) => {
    const [said, condition, code] = match;
    const find = unique(source, match.index, said);
    const never = said.replace(condition!, () => `false && (${condition})`);
    const nth = source.slice(0, match.index).split(`new Refused('${code}'`).length;
    return {
      rule: `refusal: ${code} ${nth} of ${file.slice('server/features/'.length)}`,
      file,
      find,
      put: find.slice(0, find.length - said.length) + never,
      tests: [folder],
    };
  });
}

/** The text with so much before it that it stands once. */
function unique(source: string, at: number, text: string): string {
  for (let from = at; ; from -= 1) {
    const find = source.slice(from, at + text.length);
    if (from === 0 || source.split(find).length === 2) return find;
  }
}
