import type { SaverState } from './saver.ts';

const SAYS: Record<SaverState, string> = {
  idle: 'All is saved',
  saving: 'Saving …',
  away: 'The server does not answer. What you typed is kept and sent as soon as it does.',
};
/** Whether what was typed is saved. */
export const SavedOrNot = ({ state }: { state: SaverState }) => (
  <span role="status" className={`ml-auto text-sm ${state === 'away' ? 'text-error' : 'quiet'}`}>
    {SAYS[state]}
  </span>
);
