import type { ShownTie } from '../evidence/comparisons/stateWithMark.ts';
import { TIE_KINDS, type TieKind } from '../evidence/comparisons/tie.types.ts';
import { daysBetween } from '../numbers/isoDate.ts';

/** A claim in a list, as far as it says why somebody should look at it. Amounts are decimal strings. */
export interface Attended {
  stops: number;
  ties: Partial<Record<TieKind, ShownTie>>;
  atRisk: string;
  ledgerCurrency: string;
  submittedOn: string | null;
  holdUntil: string | null;
  waiting: number;
  answered: number;
  version: number;
  /** How many claims the same person had handed in before, counted to a few. */
  earlier: number;
  drawn: boolean;
}

/** After so many days an open claim is called old, and with fewer claims than this a person is new to the office. */
const OLD_DAYS = 14;
export const FEW_CLAIMS = 3;

/**
 * Why a claim stands where it stands in the queue, in words, what weighs most first; [] where nothing does. Example: one stop,
 * 20 days old → ["1 stop has to be put right", "20 days since it was submitted"].
 */
export function attentionOf(claim: Attended, today: string): string[] {
  const { stops, waiting, answered, version, earlier, drawn, holdUntil } = claim;
  const held = holdUntil !== null && holdUntil > today;
  return [
    held && `on hold until ${holdUntil}`,
    holdUntil !== null && !held && `its hold ended on ${holdUntil}`,
    waiting > 0 && `waits for ${count(waiting, 'answer')}`,
    stops > 0 && `${count(stops, 'stop')} ${stops === 1 ? 'has' : 'have'} to be put right`,
    answered > 0 && waiting === 0 && `${count(answered, 'question')} ${answered === 1 ? 'is' : 'are'} answered`,
    sayLoose(claim.ties, 'off', 'not in agreement'),
    sayLoose(claim.ties, 'open', 'to be looked at'),
    /[1-9]/.test(claim.atRisk) && `${claim.atRisk} ${claim.ledgerCurrency} at risk`,
    drawn && 'drawn for a full look',
    version > 1 && `came back as version ${version}`,
    earlier < FEW_CLAIMS && `${['first', 'second', 'third'][earlier]} claim of this person`,
    sayAge(claim.submittedOn, today),
  ].filter((says) => says !== false && says !== null);
}

function sayLoose(ties: Attended['ties'], state: 'off' | 'open', words: string): string | null {
  const kinds = TIE_KINDS.filter((kind) => ties[kind] === state);
  return kinds.length > 0 ? `${kinds.join(', ')} ${words}` : null;
}

function sayAge(submittedOn: string | null, today: string): string | null {
  const days = submittedOn === null ? 0 : daysBetween(submittedOn, today);
  return days >= OLD_DAYS ? `${days} days since it was submitted` : null;
}

const count = (n: number, what: string): string => `${n} ${what}${n === 1 ? '' : 's'}`;
