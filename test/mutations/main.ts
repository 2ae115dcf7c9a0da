import { spawnSync } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { MUTATIONS, type Mutation } from './mutations.ts';

/**
 * npm run mutations [TEXT]: breaks one rule after the other in a copy of the tree and sees whether a test fails. Prints
 * each that survives; the exit code is 1 when one does. TEXT keeps only the mutations whose rule holds it.
 */
const root = fileURLToPath(new URL('../..', import.meta.url));
const copy = mkdtempSync(join(tmpdir(), 'ebbet-mutations-'));
for (const part of [
  'core',
  'cli',
  'demo',
  'server',
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

function survives({ file, find, put }: Mutation): boolean {
  const path = join(copy, file);
  const source = readFileSync(path, 'utf8');
  if (source.split(find).length !== 2) throw new Error(`${file} does not hold once: ${find}`);
  writeFileSync(
    path,
    source.replace(find, () => put),
  );
  const env = { ...process.env, EBBET_RANDOM_CASES: '250', DATABASE_OWNER_URL: '' };
  const { status } = spawnSync(
    join(root, 'node_modules/.bin/vitest'),
    ['run', '--bail=1', '--reporter=dot', 'core', 'test/properties', 'test/reference'],
    { cwd: copy, env },
  );
  writeFileSync(path, source);
  return status === 0;
}

const wanted = MUTATIONS.filter((m) => m.rule.includes(process.argv[2] ?? ''));
const survivors = wanted.filter((mutation) => {
  const alive = survives(mutation);
  process.stdout.write(`${alive ? 'SURVIVED' : 'caught  '}  ${mutation.rule}\n`);
  return alive;
});
rmSync(copy, { recursive: true });
process.stdout.write(`${wanted.length - survivors.length} of ${wanted.length} caught\n`);
process.exitCode = survivors.length > 0 ? 1 : 0;
