// Keeps the programs of the start command running: what dies is started again, after a pause that grows.
import { spawn } from 'node:child_process';
import { root, say } from './project.mjs';

const FIRST_PAUSE_MS = 1000;
const LONGEST_PAUSE_MS = 30_000;
/** Whoever ran this long is well again: the next pause is the first one. */
const WELL_MS = 60_000;
/** A program that says nothing of being ready is taken for it after this long. */
const SILENT_MS = 3000;

/**
 * Starts a program and, when it ends though nobody asked it to, starts it again. `failed` resolves with its exit code when
 * it ends before it was ever ready: then something is set wrong, and trying again helps nobody.
 */
export function supervise(name, [command, ...args], options) {
  let child = null;
  let stopping = false;
  let ready = false;
  let pause = FIRST_PAUSE_MS;
  let timer = null;
  let fail;
  const failed = new Promise((resolve) => (fail = resolve));

  const begin = () => {
    const since = Date.now();
    child = spawn(command, args, { cwd: root, stdio: ['inherit', 'inherit', 'inherit', 'ipc'], ...options });
    child.on('message', (message) => (ready ||= message === 'ready'));
    child.on('error', () => {});
    child.once('exit', (code, signal) => {
      child = null;
      if (stopping) return;
      if (!ready && Date.now() - since < SILENT_MS) return fail(code || 1);
      ready = true;
      if (Date.now() - since > WELL_MS) pause = FIRST_PAUSE_MS;
      say(`${name} ended (${signal ?? code}); it is started again in ${pause / 1000} s`);
      timer = setTimeout(begin, pause);
      pause = Math.min(LONGEST_PAUSE_MS, pause * 2);
    });
  };
  begin();
  return {
    failed,
    async stop() {
      stopping = true;
      clearTimeout(timer);
      if (!child) return;
      const ended = new Promise((resolve) => child.once('exit', resolve));
      child.kill('SIGTERM');
      await ended;
    },
  };
}

/** Looks after something that can tell whether it runs, and begins it again when it does not; a function that ends this. */
export function keepRunning(name, runs, begin, everyMs = 2000) {
  let pause = 0;
  let next = 0;
  const look = () => {
    if (runs()) {
      if (Date.now() > next + WELL_MS) pause = 0;
      return;
    }
    if (Date.now() < next) return;
    say(`${name} is gone; it is started again`);
    pause = Math.min(LONGEST_PAUSE_MS, Math.max(FIRST_PAUSE_MS, pause * 2));
    next = Date.now() + pause;
    try {
      begin();
    } catch (error) {
      say(`${name} could not be started: ${error.message.split('\n')[0]}`);
    }
  };
  const timer = setInterval(look, everyMs);
  return () => clearInterval(timer);
}
