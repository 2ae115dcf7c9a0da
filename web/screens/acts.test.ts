import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { ROUTES } from '../../contract/routes.ts';
import { LIFECYCLES } from '../../core/workflow/lifecycles/all.ts';

/** The screens and what they ask the server with; not what they say. */
const SOURCES = ['web/screens', 'web/parts', 'web/api']
  .flatMap((folder) => readdirSync(folder, { recursive: true }).map((file) => `${folder}/${String(file)}`))
  .filter((file) => /\.tsx?$/.test(file) && !file.includes('.test.'))
  .map((file) => readFileSync(file, 'utf8'))
  .join('\n');

/** Acts without an address or a button of their own, and the address by which they are done instead. */
const WITHIN: Record<string, string> = {
  'claim approvePart': '/claims/:number/approve',
  'plan approvePart': '/plans/:number/approve',
  'advance approvePart': '/advances/:number/approve',
  'claim gather': '/drafts/lines',
  'claim unpair': '/pairs/undo',
  'claim draw': '/clearings',
};
/** What is paid is told by who pays; no screen does that by hand. */
const BY_NO_SCREEN = ['claim pay', 'claim payPart', 'claim rejectPayment'];

const acts = LIFECYCLES.filter(({ kind }) => ['claim', 'plan', 'advance'].includes(kind)).flatMap((of) =>
  Object.entries(of.acts)
    .filter(([, rule]) => !rule.bySystem)
    .map(([act]) => ({ name: `${of.kind} ${act}`, act })),
);
const alone = acts.filter(({ name }) => !(name in WITHIN) && !BY_NO_SCREEN.includes(name));

describe('every act of people on a claim, a plan or an advance', () => {
  const routed = new Set(ROUTES.flatMap(({ does }) => (does ? [`${does.kind} ${does.act}`] : [])));
  it('has an address of the server, or is done within another', () => {
    expect(alone.filter(({ name }) => !routed.has(name)).map(({ name }) => name)).toEqual([]);
  });
  it('is done from a screen, under the name it has in its lifecycle', () => {
    const isNamed = (act: string) => new RegExp(`['"\`.]${act}\\b|\\b${act}:`).test(SOURCES);
    expect(alone.filter(({ act }) => !isNamed(act)).map(({ name }) => name)).toEqual([]);
  });
  it('that is done within another is one there is, and so is the other', () => {
    const [names, paths] = [new Set(acts.map(({ name }) => name)), new Set(ROUTES.map(({ path }) => path))];
    expect(Object.entries(WITHIN).filter(([name, path]) => !names.has(name) || !paths.has(path))).toEqual([]);
  });
});
