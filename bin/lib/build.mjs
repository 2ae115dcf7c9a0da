// Builds the server bundle and the web application when a source has changed since the last build.
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { bin, Refusal, root, runAsync, say } from './project.mjs';

const SOURCES = [
  'contract',
  'core',
  'server',
  'web',
  'demo',
  'standins',
  'package-lock.json',
  'vite.config.ts',
  'bin/lib/build.mjs',
];
const STAMP = join(root, 'build', 'sources');

export const HELPERS = { reader: 'server/platform/outside/process.ts', compute: 'server/platform/compute/process.ts' };

/** Builds into build/, or does nothing when it is up to date. */
export async function buildIfChanged() {
  const stamp = fingerprint();
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === stamp) return;
  say('Building …');
  rmSync(join(root, 'build'), { recursive: true, force: true });
  const [web] = await Promise.all([
    runAsync(bin('vite'), ['build', '--logLevel', 'warn'], { env: { ...process.env, NODE_ENV: 'production' } }),
    buildServer(),
  ]);
  if (web !== 0) throw new Refusal('the web application could not be built');
  writeFileSync(STAMP, stamp);
}

const buildServer = () =>
  bundle('build/server', {
    main: 'server/main.ts',
    prepare: 'server/prepare.ts',
    year: 'server/year.ts',
    ...HELPERS,
    bank: 'standins/bank/main.ts',
    mail: 'standins/mail/main.ts',
  });

/** The server's programs as one file each; a server finds its helpers beside itself. */
export async function bundle(outdir, entryPoints) {
  const { build } = await import('esbuild');
  await build({
    absWorkingDir: root,
    entryPoints,
    outdir,
    outExtension: { '.js': '.mjs' },
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    sourcemap: true,
    logLevel: 'warning',
  });
}

function fingerprint() {
  const hash = createHash('sha256');
  for (const source of SOURCES)
    for (const file of filesOf(join(root, source))) hash.update(file).update(readFileSync(file));
  return hash.digest('hex');
}

function filesOf(path) {
  if (!statSync(path).isDirectory()) return [path];
  return readdirSync(path)
    .sort()
    .flatMap((name) => filesOf(join(path, name)));
}
