// Paths, processes and words shared by the commands that run before anything is installed: plain Node.js only.
import { spawn, spawnSync } from 'node:child_process';
import { createServer } from 'node:net';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = join(dirname(fileURLToPath(import.meta.url)), '..', '..');
/** Where runs of tests leave what they found. */
export const RESULTS = join(root, 'test-results');
/** Where clusters and secrets are kept; git ignores it. EBBET_STATE puts it elsewhere. */
export const stateFolder = process.env.EBBET_STATE ?? join(root, '.ebbet');
export const isRoot = process.getuid?.() === 0;

/** A failure with a message for the person at the terminal; anything else is a bug and keeps its stack. */
export class Refusal extends Error {}

export function say(text) {
  process.stdout.write(`${text}\n`);
}

/** Runs a command to its end with its output shown; throws a Refusal when it fails. */
export function run(command, args, options = {}) {
  const result = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options });
  if (result.error) throw new Refusal(`${command} could not be started: ${result.error.message}`);
  if (result.status !== 0)
    throw new Refusal(`${command} ${args.join(' ')} ended with ${result.status ?? result.signal}`);
  return result;
}

/** As `run`, without blocking: a promise of the exit code. */
export function runAsync(command, args, options = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { cwd: root, stdio: 'inherit', ...options });
    child.on('error', reject);
    child.on('exit', (code, signal) => resolve(code ?? (signal ? 1 : 0)));
  });
}

export const bin = (name) => join(root, 'node_modules', '.bin', name);

/** Resolves when nothing listens on the port of 127.0.0.1; throws a Refusal when something does. */
export function assertFree(port, name = 'PORT') {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', () =>
      reject(
        new Refusal(
          `Port ${port} is taken by another program. Stop it, or choose another port: ${name}=${port + 1} npm start`,
        ),
      ),
    );
    probe.listen(port, '127.0.0.1', () => probe.close(resolve));
  });
}

export function freePort() {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address();
      probe.close(() => resolve(port));
    });
  });
}

/** Runs a command's main function: a Refusal is one line and exit code 1. */
export async function main(work) {
  try {
    process.exitCode = (await work()) ?? 0;
  } catch (error) {
    process.stderr.write(error instanceof Refusal ? `ebbet: ${error.message}\n` : `${error.stack}\n`);
    process.exitCode = 1;
  }
}
