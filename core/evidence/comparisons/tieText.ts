import { canonical } from '../../numbers/canonical.ts';
import type { Tie } from './tie.types.ts';

/**
 * The text whose SHA-256 is a comparison's fingerprint: both sides, difference, tolerance and state of everything it
 * compares. What somebody said of a comparison holds only while its fingerprint is the same. Example: the receipt’s
 * amount changed → another text, so a mark on it no longer holds.
 */
export const tieText = ({ line, kind, comparisons }: Tie): string => canonical([line, kind, comparisons]);
