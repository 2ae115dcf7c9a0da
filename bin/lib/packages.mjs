// Installs what is missing: npm packages, and PostgreSQL and Chromium from Debian.
import { existsSync, readdirSync, statSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { isRoot, Refusal, root, run, say } from './project.mjs';

const PROVIDES = {
  postgresql: () => postgresFolder() !== null,
  'chromium-headless-shell': () => existsSync('/usr/bin/chromium-headless-shell'),
};

/** npm ci when there are no packages, or when the lock file is newer than they are. */
export function ensureNodePackages() {
  const installed = join(root, 'node_modules', '.package-lock.json');
  if (existsSync(installed) && statSync(installed).mtimeMs >= statSync(join(root, 'package-lock.json')).mtimeMs) return;
  say('Installing packages …');
  run('npm', ['ci', '--include=dev', '--no-audit', '--no-fund', '--loglevel=error']);
}

/** Debian packages by name, installed when what they provide is missing. */
export function ensureDebianPackages(...names) {
  const missing = names.filter((name) => !PROVIDES[name]());
  if (missing.length === 0) return;
  const sudo = isRoot ? [] : canSudo() ? ['sudo', '-n'] : null;
  if (!sudo) throw new Refusal(`install these Debian packages, then try again: ${missing.join(' ')}`);
  say(`Installing from Debian: ${missing.join(', ')} …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const apt = (...args) =>
    run(...command([...sudo, 'apt-get', '-qq', ...args]), { env, stdio: ['ignore', 'ignore', 'inherit'] });
  apt('update');
  apt('install', '-y', '--no-install-recommends', ...missing);
}

const command = ([first, ...rest]) => [first, rest];
const canSudo = () => spawnSync('sudo', ['-n', 'true'], { stdio: 'ignore' }).status === 0;

/** The folder of PostgreSQL's programs, newest version first, or null. */
export function postgresFolder() {
  const base = '/usr/lib/postgresql';
  if (!existsSync(base)) return null;
  const versions = readdirSync(base).sort((a, b) => Number(b) - Number(a));
  return versions.map((v) => join(base, v, 'bin')).find((folder) => existsSync(join(folder, 'initdb'))) ?? null;
}
