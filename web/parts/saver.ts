import { ApiError } from '../api/client.ts';
import { isUnanswered } from '../api/once.ts';

/** One thing that somebody changed, to be sent when it is its turn. */
export interface Edit<View> {
  /** What it changes, in words: "line 3, merchant". */
  says: string;
  send(revision: number): Promise<View>;
  /** What it changes, as a record says it, to be compared; without it the edit goes with whatever the record says. */
  of?(view: View): string | null;
  /** What `of` said when it was typed: by default of what is shown when it is added. Own edits before it change that too. */
  over?: string | null;
  /** What `of` says once it is done, and nobody wrote after it; it names the field, so that no other says the same. */
  to?: string | null;
  /** What it was about is there no more, though the record is: how it can be written anew. */
  anew?(view: View): Anew | null;
  /** Told when it was dealt with: saved, offered to the person in another way, or refused for good. */
  done?(error: Error | null): void;
  /** Whether what was typed is still in its field, where it can be sent once more or taken back. */
  inPlace?: boolean;
  /** What it is made from again after a reload; without it the person is asked before leaving. */
  kept?: unknown;
  /** The revision for which it was sent, while its outcome is not known. */
  sentFor?: number | null;
}
/** How something whose place is gone is offered: "Add as a new line". */
export interface Anew {
  label: string;
  run(): void;
}

/** idle · saving · away: the server does not answer · ended: nobody is signed in. In both, what was typed waits. */
export type SaverState = 'idle' | 'saving' | 'away' | 'ended';
interface Surroundings<View> {
  view: View;
  revisionOf(view: View): number;
  load(): Promise<View>;
  show(view: View): void;
  onState(state: SaverState): void;
  /** Somebody else changed the same meanwhile: `mine` sends it all the same. */
  onConflict(says: string, mine: () => void): void;
  /** Somebody else took away what it was about. */
  onGone(says: string, anew: Anew): void;
  /** What waits, whenever that changes. */
  onQueue(edits: readonly Edit<View>[]): void;
  /** Until it is worth another try: a while, or sooner when there is a sign. */
  wait(state: SaverState): Promise<void>;
}

export interface Saver<View> {
  add(edit: Edit<View>): void;
  /** The record as it is known now, when it came by another way. */
  know(view: View): void;
  /**
   * Runs an act on the record as a whole, in its turn after all that was typed before. Where some of that was not saved, or
   * cannot be sent now, the act is not done and says so.
   */
  act(send: (revision: number) => Promise<View>): Promise<View>;
}

/**
 * Sends edits one after the other, each for the revision the one before left. A record that somebody else changed meanwhile is
 * loaded, and an edit of a field that they left alone is sent again; of one that they changed too, the person is asked. While
 * the server is away or the session has ended nothing is lost: the edit waits and is sent later, and for the same revision as
 * long as nobody knows whether it came through: so it happens once.
 *
 * At any time every edit that waits is about what the known record says: whatever somebody else brings into it is compared at
 * once with all that waits, and what an own edit changes is what those after it were typed over.
 */
export function createSaver<View>(around: Surroundings<View>): Saver<View> {
  const queue: Edit<View>[] = [];
  let { view } = around;
  /** A newer record that came by another way while something was on its way: whose doing it is, is known afterwards. */
  let heard: View | null = null;
  let state: SaverState = 'idle';
  const idle: (() => void)[] = [];
  /** What was not saved since the last act that asked. */
  let refused: Error | null = null;

  const become = (next: SaverState) => {
    if (next === state) return;
    state = next;
    around.onState(next);
    if (next !== 'saving') idle.splice(0).forEach((wake) => wake());
  };
  const isNewer = (a: View, b: View) => around.revisionOf(a) > around.revisionOf(b);
  const isMet = (edit: Edit<View>) => isSent(edit) || !edit.of || edit.of(view) === edit.over;
  const remove = (...edits: Edit<View>[]) => {
    for (const edit of edits) queue.splice(queue.indexOf(edit), 1);
    if (edits.length > 0) around.onQueue(queue);
  };

  async function run(): Promise<void> {
    become('saving');
    for (let edit = queue[0]; edit; edit = queue[0]) await one(edit);
    become('idle');
  }
  /** Sends an edit; it waits on where its outcome is not known yet. */
  async function one(edit: Edit<View>): Promise<void> {
    if (!isMet(edit)) return foreign(view);
    edit.sentFor ??= around.revisionOf(view);
    around.onQueue(queue);
    try {
      const next = await edit.send(edit.sentFor);
      become('saving');
      remove(edit);
      written(next, edit.sentFor, edit.to);
      edit.done?.(null);
    } catch (error) {
      await after(edit, error as Error);
    }
  }
  async function after(edit: Edit<View>, error: Error): Promise<void> {
    const code = error instanceof ApiError ? error.code : '';
    if (isUnanswered(error) || code === 'not-signed-in') return later(code === 'not-signed-in' ? 'ended' : 'away');
    if (code === 'stale') return again(edit);
    remove(edit);
    refused = error;
    const gone = code === 'not-found' ? edit.anew?.(view) : null;
    if (gone) around.onGone(edit.says, gone);
    edit.done?.(gone ? null : error);
    takeHeard();
  }
  /** It was not done, and for that revision never will be: it is compared with the record as it is now. */
  async function again(edit: Edit<View>): Promise<void> {
    edit.sentFor = null;
    try {
      const next = await around.load();
      around.show(next);
      foreign(next);
      takeHeard();
    } catch (failure) {
      await later(isSignedOut(failure) ? 'ended' : 'away');
    }
  }
  async function later(next: SaverState): Promise<void> {
    become(next);
    await around.wait(next);
  }

  /**
   * The answer to a write of our own. One that was repeated is answered with the record as it is by then, in which others may
   * have written too: what they changed is compared as theirs.
   */
  function written(next: View, sentFor: number, to?: string | null): void {
    if (around.revisionOf(next) <= sentFor + 1) return own(next, to);
    for (const edit of queue) if (!isSent(edit) && to != null && edit.of?.(next) === to) edit.over = to;
    if (!isNewer(view, next)) around.show(next);
    foreign(isNewer(view, next) ? view : next);
    takeHeard();
  }
  /** The record after a write of our own, and nothing else. An answer that was kept for a repeated write may be older than what is known. */
  function own(next: View, to?: string | null): void {
    const later = heard && isNewer(heard, next) ? heard : null;
    // what was typed over what was heard of later stands as it is; what was typed over something else before, too: it is not ours
    const follows = (edit: Edit<View>) =>
      !(later && edit.of?.(later) === edit.over) && (isMet(edit) || (to != null && edit.of?.(next) === to));
    for (const edit of queue) if (!isSent(edit) && follows(edit)) edit.over = edit.of?.(next);
    if (isNewer(view, next)) foreign(view);
    else {
      view = next;
      if (!later) around.show(next);
    }
    takeHeard();
  }
  /** The record as somebody else made it: what waits and is about something they changed is not sent. */
  function foreign(next: View): void {
    view = next;
    const fallen = queue.filter((edit) => !isMet(edit));
    remove(...fallen);
    fallen.forEach(notTaken);
  }
  function takeHeard(): void {
    const next = heard;
    heard = null;
    if (next && isNewer(next, view)) foreign(next);
  }
  function notTaken(edit: Edit<View>): void {
    refused = new ChangedMeanwhile();
    const anew = edit.anew?.(view);
    if (!anew && edit.inPlace) return edit.done?.(refused);
    edit.done?.(null);
    if (anew) around.onGone(edit.says, anew);
    else around.onConflict(edit.says, () => saver.add({ ...edit, sentFor: null, over: undefined }));
  }
  /** Until nothing is being sent. */
  const settled = () => new Promise<void>((wake) => idle.push(wake));

  const saver: Saver<View> = {
    add({ over, ...edit }) {
      queue.push({ ...edit, over: over === undefined ? edit.of?.(heard ?? view) : over });
      around.onQueue(queue);
      if (state === 'idle') void run();
    },
    know(next) {
      if (!isNewer(next, heard ?? view)) return;
      if (state === 'idle') view = next;
      else heard = next;
    },
    async act(send) {
      refused = null;
      while (state === 'saving') await settled();
      const against = refused as Error | null;
      if (state === 'away' || state === 'ended') throw new Error(NOT_YET[state]);
      if (against) throw new Error(`What you typed was not saved: ${against.message} Look at it, then try again.`);
      become('saving');
      try {
        const sentFor = around.revisionOf(view);
        const next = await send(sentFor);
        written(next, sentFor);
        return next;
      } finally {
        takeHeard();
        if (queue.length > 0) void run();
        else become('idle');
      }
    },
  };
  return saver;
}

/** Whether it was sent and nobody knows yet what became of it. */
const isSent = (edit: Pick<Edit<never>, 'sentFor'> | undefined): boolean =>
  edit?.sentFor !== undefined && edit.sentFor !== null;

/** Somebody else changed what was typed over; what is typed stays where it is. */
export class ChangedMeanwhile extends Error {
  constructor() {
    super('Somebody else changed this meanwhile. Enter saves yours, Escape leaves theirs.');
  }
}
const isSignedOut = (error: unknown): boolean => error instanceof ApiError && error.code === 'not-signed-in';
const NOT_YET = {
  away: 'The server does not answer, and what you typed is not saved yet. Try again once it says that all is saved.',
  ended: 'Your session has ended, and what you typed is not saved yet. Sign in again above, then try again.',
};
