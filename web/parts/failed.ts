import { toast } from './toast.tsx';

/** Says that something failed, with the server's own words where it gave some. */
export const failed = (error: unknown): void =>
  toast({ text: error instanceof Error ? error.message : 'That failed. Try again.', tone: 'bad' });
