import { Refused } from '../http/refusal.ts';
import { nextToBegin, type Claimant, type Places } from './fairQueue.ts';
import { Helper, HelperFault, type HelperProgram } from './helper.ts';

/** Something asked of the helpers: what, for whom, and how long it may take. */
export interface Asked extends Claimant {
  task: object;
  seconds: number;
}
export interface Helpers {
  /** The answer of a helper; rejects with a HelperFault, or refused as busy when too many wait. */
  ask(asked: Asked): Promise<unknown>;
  /** How many tasks wait, and how many are done now. */
  load(): { waiting: number; running: number };
  close(): void;
}
interface Job extends Asked {
  resolve: (result: unknown) => void;
  reject: (error: unknown) => void;
}
export interface HelperLimits extends Places {
  mostWaiting: number;
}

const TRIES = 3;
const COME_BACK = { seconds: 30 };

/**
 * Processes that do what is asked of them, made when they are needed and anew when they were ended. What waits is begun
 * in a fair order; a task whose process had died before it began goes to another one.
 */
export function createHelpers(program: HelperProgram, limits: HelperLimits): Helpers {
  const waiting: Job[] = [];
  const running = new Set<Job>();
  const all = new Set<Helper>();
  const idle = new Set<Helper>();
  let closed = false;

  const make = (): Helper => {
    const made = new Helper(program, () => [all, idle].forEach((set) => set.delete(made)));
    all.add(made);
    return made;
  };
  const attempt = async ({ task, seconds }: Pick<Job, 'task' | 'seconds'>, tries = 1): Promise<unknown> => {
    const [ready] = idle;
    const helper = ready ?? make();
    idle.delete(helper);
    try {
      return await helper.run(task, seconds);
    } catch (error) {
      if (closed || tries === TRIES || !diedBefore(error)) throw error;
      return attempt({ task, seconds }, tries + 1);
    } finally {
      if (helper.alive) idle.add(helper);
    }
  };
  const goOn = (): void => {
    const at = closed ? -1 : nextToBegin(waiting, [...running], limits);
    const [job] = at < 0 ? [] : waiting.splice(at, 1);
    if (!job) return;
    running.add(job);
    const done = () => {
      running.delete(job);
      goOn();
    };
    attempt(job).then(job.resolve, job.reject).finally(done);
    goOn();
  };

  return {
    ask(asked) {
      if (waiting.length >= limits.mostWaiting) return Promise.reject(new Refused('busy', COME_BACK));
      return new Promise((resolve, reject) => {
        waiting.push({ ...asked, resolve, reject });
        goOn();
      });
    },
    load: () => ({ waiting: waiting.length, running: running.size }),
    close() {
      closed = true;
      for (const helper of all) helper.kill();
    },
  };
}

/** Whether a helper was gone before it had begun, so that another one can be asked. */
const diedBefore = (error: unknown): boolean => error instanceof HelperFault && error.kind === 'ended' && !error.begun;
