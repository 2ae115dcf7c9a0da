import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const ROOT = fileURLToPath(new URL('..', import.meta.url));

/**
 * Makes the database with the demo, from which each measure gets a copy. In a process of its own, as when the product starts:
 * the package that reads papers puts a slower JSON.stringify in the place of the language's, and no server has it.
 */
export function makeTemplate(): void {
  execFileSync(join(ROOT, 'node_modules/.bin/tsx'), [join(ROOT, 'bench/loadTemplate.ts')], { stdio: 'inherit' });
}
