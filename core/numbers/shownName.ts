import { visible } from './visible.ts';

const LONGEST = 120;

/**
 * The name of a file from outside as it is kept and shown: without what cannot be seen or turns text around, and of a long one its
 * end, where its kind stands. "a\r\n\u202efdp.xml" → "a fdp.xml"; "" → "".
 */
export const shownName = (name: string): string => visible(name).trim().slice(-LONGEST);
