import { spawnSync } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import { isBuiltin } from 'node:module';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { beforeAll, expect, it } from 'vitest';

const root = fileURLToPath(new URL('../..', import.meta.url));
const folder = join(root, 'build/server');

/** Packages a bundle asks for at run time. */
function packagesOf(text: string): string[] {
  const named = [
    ...text.matchAll(/^(?:import|export) [^"']*from "([@a-z][\w@./-]*)";$/gm),
    ...text.matchAll(/(?:import|require\.resolve)\("([@a-z][\w@./-]*)"\)/g),
  ];
  return named.map(([, name]) =>
    name!
      .split('/')
      .slice(0, name!.startsWith('@') ? 2 : 1)
      .join('/'),
  );
}

/** The unit tests come before anything is built. */
beforeAll(() => {
  const build = `import('./bin/lib/build.mjs').then((m) => m.buildIfChanged())`;
  expect(spawnSync(process.execPath, ['-e', build], { cwd: root }).status).toBe(0);
});

it('the server’s bundles need nothing that is only there for development', () => {
  const { dependencies } = JSON.parse(readFileSync(join(root, 'package.json'), 'utf8'));
  const bundles = readdirSync(folder).filter((name) => name.endsWith('.mjs'));
  expect(bundles).toEqual(expect.arrayContaining(['main.mjs', 'prepare.mjs', 'reader.mjs', 'compute.mjs']));
  const needed = new Set(bundles.flatMap((name) => packagesOf(readFileSync(join(folder, name), 'utf8'))));
  const packages = [...needed].filter((name) => !isBuiltin(name));
  expect(packages.length).toBeGreaterThan(10);
  expect(packages.filter((name) => !(name in dependencies))).toEqual([]);
});
