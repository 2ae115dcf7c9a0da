import { fork, type ChildProcess } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import type { FileToRead } from './readFile.ts';
import type { Inspected, ReadResult } from './reading.types.ts';

/** Looks at files from outside in processes of their own. */
export interface Reader {
  /** What a file is; refused with a reason, also when it cannot be opened in time or memory. */
  inspect(bytes: Buffer): Promise<Inspected>;
  /** What a file says; rejects when it cannot be read in time. */
  read(file: FileToRead): Promise<ReadResult>;
  close(): void;
}
export interface ReaderLimits {
  inspectSeconds: number;
  readSeconds: number;
  heapMegabytes: number;
}
export const usualReaderLimits: ReaderLimits = { inspectSeconds: 45, readSeconds: 90, heapMegabytes: 640 };

const TOO_MUCH = 'it takes too long or too much memory to open; print it to a new PDF or take a picture of it';

export function createReader(limits: ReaderLimits = usualReaderLimits): Reader {
  const inspector = createHelper(limits.inspectSeconds, limits.heapMegabytes);
  const recogniser = createHelper(limits.readSeconds, limits.heapMegabytes);
  return {
    async inspect(bytes) {
      try {
        return (await inspector.ask({ task: 'inspect', bytes })) as Inspected;
      } catch {
        return { ok: false, reason: TOO_MUCH };
      }
    },
    read: async (file) => (await recogniser.ask({ task: 'read', ...file })) as ReadResult,
    close() {
      inspector.close();
      recogniser.close();
    },
  };
}

interface Answer {
  id: number;
  ok: boolean;
  result?: unknown;
  problem?: string;
}

/** One process that does one task after the other; it is made when first needed and anew when it was ended. */
function createHelper(seconds: number, heapMegabytes: number) {
  let child: ChildProcess | null = null;
  let last = 0;
  let queue: Promise<unknown> = Promise.resolve();

  const one = (task: object) =>
    new Promise<unknown>((resolve, reject) => {
      const helper = (child ??= start(heapMegabytes));
      const id = (last += 1);
      const settle = (end: () => void) => {
        clearTimeout(timer);
        helper.off('message', hear).off('exit', exited);
        end();
      };
      const hear = (answer: Answer) => {
        if (answer.id !== id) return;
        settle(() => (answer.ok ? resolve(answer.result) : reject(new Error(answer.problem))));
      };
      const exited = () => {
        child = null;
        settle(() => reject(new Error(TOO_MUCH)));
      };
      const timer = setTimeout(() => helper.kill('SIGKILL'), seconds * 1000);
      helper.on('message', hear).on('exit', exited);
      helper.send({ id, ...task });
    });

  return {
    ask(task: object): Promise<unknown> {
      const answer = queue.then(() => one(task));
      queue = answer.catch(() => undefined);
      return answer;
    },
    close: () => child?.kill('SIGKILL'),
  };
}

/** The program beside this one: a bundle when built, the source with its loader otherwise. */
function start(heapMegabytes: number): ChildProcess {
  const built = import.meta.url.endsWith('.mjs');
  const program = fileURLToPath(new URL(built ? './reader.mjs' : './process.ts', import.meta.url));
  const heap = `--max-old-space-size=${heapMegabytes}`;
  return fork(program, {
    serialization: 'advanced',
    execArgv: built ? [heap] : [heap, '--import', 'tsx'],
    stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
  });
}
