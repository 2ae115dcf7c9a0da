import { abroad } from './abroad.ts';
import { atHome } from './atHome.ts';
import type { ClaimSeed } from './claim.types.ts';
import { japan } from './japan.ts';
import { meetings } from './meetings.ts';
import { tidyClaims } from './tidy.ts';

const byNumber = (a: ClaimSeed, b: ClaimSeed): number => a.number.localeCompare(b.number);

/**
 * All claims of the demo, the same every time and in the order of their numbers: those written by hand, each with
 * something for the reviewer to find (or, twice, nothing at all), then the tidy ones.
 */
export const claims: ClaimSeed[] = [...[...abroad, ...atHome, ...japan, ...meetings].sort(byNumber), ...tidyClaims];
