import { spawnSync } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { ALL_MUTATIONS, placesOf } from './all.ts';
import type { Mutation } from './mutations.ts';

/**
 * npm run mutations [PATTERN]: breaks one rule after the other in a copy of the tree and sees whether a test fails. Prints
 * each that survives; the exit code is 1 when one does. PATTERN keeps only the mutations whose rule it fits ("server:" and
 * "web:" are the guards of the server and the logic of the screens).
 */
const root = fileURLToPath(new URL('../..', import.meta.url));
const copy = mkdtempSync(join(tmpdir(), 'ebbet-mutations-'));
for (const part of [
  'core',
  'contract',
  'cli',
  'demo',
  'server',
  'standins',
  'web',
  'test',
  'docs',
  'bin',
  'package.json',
  'package-lock.json',
  'tsconfig.json',
  'vitest.config.ts',
])
  cpSync(join(root, part), join(copy, part), { recursive: true });
symlinkSync(join(root, 'node_modules'), join(copy, 'node_modules'));

const CORE_TESTS = ['core', 'test/properties', 'test/reference'];

/** Whether tests pass; those of the server find a database with the demo in it, made before anything was broken. */
function passes(tests: readonly string[], template: 'make' | 'keep' | 'none'): boolean {
  const env = {
    ...process.env,
    EBBET_RANDOM_CASES: '250',
    ...(template === 'none' ? { DATABASE_OWNER_URL: '' } : { EBBET_TEMPLATE: template }),
  };
  const args = ['run', '--bail=1', '--reporter=dot', ...tests];
  return spawnSync(join(root, 'node_modules/.bin/vitest'), args, { cwd: copy, env }).status === 0;
}

/** The broken migration that made the template which is there; null where nothing was broken when it was made. */
let templateOf: string | null = null;

function survives(mutation: Mutation): boolean {
  const { file, find, put, tests } = mutation;
  const path = join(copy, file);
  const source = readFileSync(path, 'utf8');
  if (placesOf(mutation, source) !== 1) throw new Error(`${file} does not hold once: ${find}`);
  writeFileSync(
    path,
    source.replace(find, () => put),
  );
  // what a migration guards is only broken in a database that was made by it
  const template = file.includes('/migrations/') || templateOf !== null ? 'make' : 'keep';
  templateOf = file.includes('/migrations/') ? file : null;
  const alive = tests ? passes(tests, needsDatabase(tests) ? template : 'none') : passes(CORE_TESTS, 'none');
  writeFileSync(path, source);
  return alive;
}

const needsDatabase = (tests: readonly string[]): boolean => tests.some((t) => t.startsWith('server/'));

const wanted = ALL_MUTATIONS.filter((m) => new RegExp(process.argv[2] ?? '').test(m.rule));
if (wanted.some((m) => m.tests && needsDatabase(m.tests))) passes(['server/features/periods'], 'make');
const survivors = wanted.filter((mutation) => {
  const alive = survives(mutation);
  process.stdout.write(`${alive ? 'SURVIVED' : 'caught  '}  ${mutation.rule}\n`);
  return alive;
});
rmSync(copy, { recursive: true });
process.stdout.write(`${wanted.length - survivors.length} of ${wanted.length} caught\n`);
process.exitCode = survivors.length > 0 ? 1 : 0;
