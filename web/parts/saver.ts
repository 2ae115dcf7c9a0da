import { ApiError } from '../api/client.ts';

/** One thing that somebody changed, to be sent when it is its turn. */
export interface Edit<View> {
  /** What it changes, in words: "line 3, merchant". */
  says: string;
  send(revision: number): Promise<View>;
  /** Whether what it changes still is as it was when it was typed. */
  stands(view: View): boolean;
  /** Told when it was saved, or refused for good. */
  done?(error: Error | null): void;
}

/** idle · saving · away: the server does not answer, what was typed waits. */
export type SaverState = 'idle' | 'saving' | 'away';
interface Surroundings<View> {
  view: View;
  revisionOf(view: View): number;
  load(): Promise<View>;
  show(view: View): void;
  onState(state: SaverState): void;
  /** Somebody else changed the same field meanwhile: `mine` sends it all the same. */
  onConflict(says: string, mine: () => void): void;
  wait(): Promise<void>;
}

export interface Saver<View> {
  add(edit: Edit<View>): void;
  /** The claim as it is known now, when it came by another way. */
  know(view: View): void;
}

/**
 * Sends edits one after the other, each for the revision the one before left. A claim that somebody else changed
 * meanwhile is loaded, and an edit of a field that they left alone is sent again; of one that they changed too, the
 * person is asked. While the server is away nothing is lost: the edit waits and is sent later.
 */
export function createSaver<View>(around: Surroundings<View>): Saver<View> {
  const queue: Edit<View>[] = [];
  let { view } = around;
  let running = false;

  const take = (next: View) => {
    view = next;
    around.show(next);
  };
  async function run(): Promise<void> {
    running = true;
    around.onState('saving');
    for (let edit = queue[0]; edit; edit = queue[0]) if (await one(edit)) queue.shift();
    running = false;
    around.onState('idle');
  }
  /** Whether the edit is dealt with. */
  async function one(edit: Edit<View>): Promise<boolean> {
    try {
      take(await edit.send(around.revisionOf(view)));
      edit.done?.(null);
      return true;
    } catch (error) {
      return after(edit, error as Error);
    }
  }
  async function after(edit: Edit<View>, error: Error): Promise<boolean> {
    const { code, status } = error instanceof ApiError ? error : { code: '', status: -1 };
    if (status === 0 || status === 503) {
      around.onState('away');
      await around.wait();
      return false;
    }
    if (code !== 'stale') {
      edit.done?.(error);
      return true;
    }
    const fresh = await around.load().catch(() => null);
    if (!fresh) return false;
    take(fresh);
    if (edit.stands(fresh)) return false;
    around.onConflict(edit.says, () => saver.add({ ...edit, stands: () => true }));
    return true;
  }
  const saver: Saver<View> = {
    add(edit) {
      queue.push(edit);
      if (!running) void run();
    },
    know(next) {
      if (around.revisionOf(next) > around.revisionOf(view)) view = next;
    },
  };
  return saver;
}
