import { fork, type ChildProcess } from 'node:child_process';
import { readFile } from 'node:fs/promises';
import type { Confinement } from './confine.ts';

/** Why a helper gave no answer: it took too long, held too much memory, ended by itself, or its work failed. */
export type FaultKind = 'time' | 'memory' | 'ended' | 'failed';
export class HelperFault extends Error {
  readonly kind: FaultKind;
  /** Whether the task had begun; one that had not can be given to another helper. */
  readonly begun: boolean;

  constructor(kind: FaultKind, begun: boolean, says = '') {
    super(says || kind);
    this.kind = kind;
    this.begun = begun;
  }
}
/** What a helper is started with. */
export interface HelperProgram {
  file: string;
  /** Arguments of Node before the program. */
  nodeArgs: readonly string[];
  confinement: Confinement;
  /** Megabytes that may be resident. */
  megabytes: number;
}

type Answer =
  { id: number; begun: true } | { id: number; ok: true; result: unknown } | { id: number; ok: false; says: string };
const WATCH_MS = 50;

/** A process that does one task after the other. It is ended when a task takes too long or too much memory. */
export class Helper {
  alive = true;
  private readonly child: ChildProcess;
  private readonly megabytes: number;
  private last = 0;

  constructor({ file, nodeArgs, confinement, megabytes }: HelperProgram, onEnd: () => void) {
    const [command, ...before] = [...confinement.command, process.execPath];
    this.megabytes = megabytes;
    this.child = fork(file, [], {
      execPath: command!,
      execArgv: [...before, ...nodeArgs],
      env: {},
      serialization: 'advanced',
      stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
    });
    const end = () => {
      this.alive = false;
      onEnd();
    };
    // Without a listener a message to a process that has just died would end the server.
    this.child.on('error', end).on('exit', end);
  }

  /** Does a task; rejects with a HelperFault. */
  run(task: object, seconds: number): Promise<unknown> {
    const id = (this.last += 1);
    let begun = false;
    let why: FaultKind = 'ended';
    return new Promise((resolve, reject) => {
      const end = (kind: FaultKind) => {
        why = kind;
        this.kill();
      };
      const timer = setTimeout(() => end('time'), seconds * 1000);
      const watch = setInterval(
        () => void this.resident().then((mb) => mb > this.megabytes && end('memory')),
        WATCH_MS,
      );
      const settle = (finish: () => void) => {
        clearTimeout(timer);
        clearInterval(watch);
        this.child.off('message', hear).off('exit', ended).off('error', ended);
        finish();
      };
      const ended = () => settle(() => reject(new HelperFault(why, begun)));
      const hear = (answer: Answer) => {
        if (answer.id !== id) return;
        if ('begun' in answer) begun = true;
        else if (answer.ok) settle(() => resolve(answer.result));
        else settle(() => reject(new HelperFault('failed', true, answer.says)));
      };
      if (!this.alive) return ended();
      this.child.on('message', hear).on('exit', ended).on('error', ended);
      this.child.send({ id, ...task }, (error) => error && ended());
    });
  }

  kill(): void {
    this.child.kill('SIGKILL');
  }

  /** Megabytes in memory now, as the system counts them; 0 where it does not tell. */
  private async resident(): Promise<number> {
    const status = await readFile(`/proc/${this.child.pid}/status`, 'latin1').catch(() => '');
    return Number(/^VmRSS:\s+(\d+) kB/m.exec(status)?.[1] ?? 0) / 1024;
  }
}
