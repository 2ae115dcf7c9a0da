// npm run lint: formatting, rules, types, and the arrows between folders. Counts as one check each.
import { join } from 'node:path';
import { bin, main, root, runAsync, say } from './lib/project.mjs';

/** What was found fine stays fine until it changes; kept where a fresh clone has nothing. */
const kept = (name) => join(root, 'node_modules', '.cache', name);
const CHECKS = [
  ['types', 'tsc', ['--noEmit', '--incremental', '--tsBuildInfoFile', kept('types.json'), '-p', '.']],
  [
    'rules',
    'eslint',
    ['--max-warnings', '0', '--cache', '--cache-strategy', 'content', '--cache-location', kept('rules.json'), '.'],
  ],
  [
    'formatting',
    'prettier',
    [
      '--check',
      '--log-level',
      'warn',
      '--cache',
      '--cache-strategy',
      'content',
      '--cache-location',
      kept('formatting.json'),
      '.',
    ],
  ],
  ['arrows', 'depcruise', ['--output-type', 'err', 'core', 'contract', 'server', 'web', 'cli', 'demo']],
  ['unused', 'knip', ['--no-progress']],
  ['generated documents', 'tsx', ['docs/generate.ts', '--check']],
];

const AT_ONCE = 2;

/** Runs every check, two at a time; how many passed and failed. */
export async function lint() {
  const failed = [];
  const waiting = [...CHECKS];
  const work = async () => {
    for (let check = waiting.shift(); check; check = waiting.shift()) {
      const [name, command, args] = check;
      const code = await runAsync(bin(command), args);
      say(`lint ${name}: ${code === 0 ? 'fine' : 'FAILED'}`);
      if (code !== 0) failed.push(name);
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, work));
  return { passed: CHECKS.length - failed.length, failed: failed.length };
}

if (process.argv[1]?.endsWith('lint.mjs')) await main(async () => ((await lint()).failed > 0 ? 1 : 0));
