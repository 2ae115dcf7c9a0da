import type { SaverState } from './saver.ts';
import { useAllUnsaved } from './unsaved.ts';

const SAYS: Record<SaverState, string> = {
  idle: 'All is saved',
  saving: 'Saving …',
  away: 'The server does not answer. What you typed is kept and sent as soon as it does.',
  ended: 'Your session has ended. What you typed is kept and sent once you have signed in above.',
};
/** Whether what was typed is saved. */
export function SavedOrNot({ state }: { state: SaverState }) {
  const fields = useAllUnsaved().filter((what) => what.show);
  const typed = state === 'idle' && fields.length > 0;
  const waits = state === 'away' || state === 'ended';
  return (
    <span
      role="status"
      aria-live={typed ? 'off' : 'polite'}
      className={`ml-auto text-sm ${waits ? 'text-error' : 'quiet'}`}
    >
      {typed ? `Not saved yet: ${sayFields(fields.map((what) => what.says))}` : SAYS[state]}
    </span>
  );
}

const sayFields = ([first = '', ...others]: readonly string[]): string =>
  others.length === 0 ? first : `${first} and ${others.length} more`;
