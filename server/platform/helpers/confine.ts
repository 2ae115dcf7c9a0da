import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';

/** A command in front of a helper's own that takes away what it does not need. */
export interface Confinement {
  command: readonly string[];
  /** What could not be taken away here, for the log. */
  missing: readonly string[];
}

const NOBODY = '65534';
const found = (name: string): string | null =>
  ['/usr/bin', '/bin', '/usr/sbin', '/sbin'].map((folder) => `${folder}/${name}`).find((p) => existsSync(p)) ?? null;
const works = ([command, ...args]: readonly string[]): boolean =>
  spawnSync(command!, args, { stdio: 'ignore', env: {} }).status === 0;

/**
 * How a helper that runs `program` is confined on this machine: no network (a network namespace of its own), a user of its
 * own when the server is root's, no new files, no core dumps. What the machine does not allow is left out and named.
 */
export function confine(program: string): Confinement {
  const missing: string[] = [];
  const command: string[] = [];
  const add = (what: string, part: readonly string[] | null, test: readonly string[]) => {
    if (part && works([...command, ...part, ...test])) command.push(...part);
    else missing.push(what);
  };
  const root = process.getuid?.() === 0;
  const tool = (name: string, ...args: string[]) => (found(name) ? [found(name)!, ...args] : null);
  add('file writing', tool('prlimit', '--fsize=0', '--core=0'), [process.execPath, '--version']);
  add('network', tool('unshare', root ? '--net' : '--map-root-user', ...(root ? [] : ['--net'])), ['/bin/true']);
  if (root) {
    const user = [`--reuid=${NOBODY}`, `--regid=${NOBODY}`, '--clear-groups', '--no-new-privs'];
    const readable = `const f = require('node:fs'); f.accessSync(${JSON.stringify(program)}, f.constants.R_OK)`;
    const test = [process.execPath, '-e', readable];
    const plain = tool('setpriv', ...user) ?? [];
    // A project in a folder that only root may enter: then the one right to pass through is kept.
    const passing = [...plain, '--inh-caps=+dac_read_search', '--ambient-caps=+dac_read_search'];
    add('user', works([...command, ...plain, ...test]) ? plain : passing, test);
  }
  return { command, missing };
}
