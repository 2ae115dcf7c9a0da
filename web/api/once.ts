/** Pauses before what was not answered is sent again, in milliseconds; after the last the person is told. */
const PAUSES = [400, 1500];

/** Keys of writes whose outcome is not known, or not yet, by what was asked. After a reload they are known by who keeps them. */
const open = new Map<string, string>();
let keepOpen: (keys: readonly [string, string][]) => void = () => undefined;
/** Takes over keys that were kept, and has what is open kept from now on. */
export function keepKeys(before: readonly [string, string][], keep: typeof keepOpen): void {
  before.forEach(([what, key]) => open.set(what, key));
  keepOpen = keep;
}

/**
 * Sends a write that has to happen once whatever the network does: with a key of its own, again with the same key while
 * nothing was answered. Asked for anew with the same content, by a second touch or after a failure, it is the same write
 * until its outcome is known.
 */
export async function once<T>(what: string, attempt: (key: string) => Promise<T>): Promise<T> {
  const key = open.get(what) ?? randomKey();
  open.set(what, key);
  keepOpen([...open]);
  for (const pause of [...PAUSES, null])
    try {
      const answer = await attempt(key);
      close(what);
      return answer;
    } catch (error) {
      if (!isUnanswered(error) && !isTurnedAway(error)) close(what);
      if (!isUnanswered(error) || pause === null) throw error;
      await new Promise((wake) => setTimeout(wake, pause));
    }
  throw new Error('unreachable');
}

function close(what: string): void {
  open.delete(what);
  keepOpen([...open]);
}

/** A name nobody else has, outside secure origins too, where browsers make no UUIDs. */
export const randomKey = (): string =>
  [...crypto.getRandomValues(new Uint8Array(16))].map((byte) => byte.toString(16).padStart(2, '0')).join('');

/** Whether it was turned away before anybody looked at it: what became of the same one sent earlier stays open. */
const isTurnedAway = (error: unknown): boolean => [401, 429].includes((error as { status?: number }).status ?? -1);

/** Whether an error leaves open what happened: no answer, one that is none, or a server that was busy or broke. */
export const isUnanswered = (error: unknown): boolean => {
  const { status, code } = error as { status?: number; code?: string };
  // half an answer says nothing, whatever its status
  return status !== undefined && (status === 0 || status >= 500 || code === 'unreadable');
};
