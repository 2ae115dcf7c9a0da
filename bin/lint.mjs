// npm run lint: formatting, rules, types, and the arrows between folders. Counts as one check each.
import { bin, main, runAsync, say } from './lib/project.mjs';

const CHECKS = [
  ['formatting', 'prettier', ['--check', '--log-level', 'warn', '.']],
  ['rules', 'eslint', ['--max-warnings', '0', '.']],
  ['types', 'tsc', ['--noEmit', '-p', '.']],
  ['arrows', 'depcruise', ['--output-type', 'err', 'core', 'contract', 'server', 'web', 'cli', 'demo']],
  ['unused', 'knip', ['--no-progress']],
  ['generated documents', 'tsx', ['docs/generate.ts', '--check']],
];

/** Runs every check; the names of those that failed. */
export async function lint() {
  const failed = [];
  for (const [name, command, args] of CHECKS) {
    const code = await runAsync(bin(command), args);
    say(`lint ${name}: ${code === 0 ? 'fine' : 'FAILED'}`);
    if (code !== 0) failed.push(name);
  }
  return { passed: CHECKS.length - failed.length, failed: failed.length };
}

if (process.argv[1]?.endsWith('lint.mjs')) await main(async () => ((await lint()).failed > 0 ? 1 : 0));
