import type { Context } from '../context.ts';
import { deleteKeysBefore } from './keys.queries.ts';

/** A day longer than the database insists on. */
const KEPT_MS = 31 * 86_400_000;

/** Forgets what requests of long ago came to: none of them is sent again. */
export const forgetKeys = ({ db, clock }: Pick<Context, 'db' | 'clock'>): Promise<void> =>
  deleteKeysBefore(db, new Date(clock.now().getTime() - KEPT_MS));
