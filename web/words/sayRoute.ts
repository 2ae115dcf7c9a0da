import type { RouteNeed, RouteSkip } from '../api/approvals.ts';
import { groupDigits } from '../../core/numbers/groupDigits.ts';

type Detour = RouteNeed['detours'][number];
type About = RouteNeed['about'];

const WHY: Record<Detour['why'], string> = {
  own: 'it is their own',
  prepared: 'they prepared it',
  left: 'they have left',
  away: 'they are away',
  'no role': 'they hold no role that decides',
  unknown: 'nobody knows them',
};

/** Why somebody does not decide themselves, and who does instead. */
export function sayDetour({ person, why, to, as }: Detour): string {
  const instead =
    to === null
      ? 'nobody is above them'
      : `${to} decides${as === 'above' ? ', who is above them' : ', their substitute'}`;
  return `${person}: ${WHY[why]}; ${instead}`;
}

/** The codes a decision is about, each with what is charged to it. */
export const sayAbout = (about: About, currency: string): string =>
  about
    .map(
      ({ dimension, code, amount }) =>
        `${dimension} ${code}${amount === null ? '' : ` (${groupDigits(amount)} ${currency})`}`,
    )
    .join(', ');

/** Why a level, or a part of it, asks nobody. */
export function saySkip(skip: RouteSkip, currency: string): string {
  switch (skip.why) {
    case 'below':
      return `only above ${groupDigits(skip.limit)} ${skip.currency}; this is ${groupDigits(skip.total)}`;
    case 'category':
      return 'none of its categories';
    case 'not charged':
      return 'nothing is charged to such a code';
    case 'not a contractor':
      return 'only for contractors';
    case 'no owner':
      return `nobody owns ${skip.dimension} ${skip.code}`;
    case 'decides already': {
      const about = sayAbout(skip.about, currency);
      return `${skip.person} decides already at step ${skip.place}${about && `, also about ${about}`}`;
    }
    case 'nobody':
      return ['nobody can decide here', ...skip.detours.map(sayDetour)].join(': ');
    default:
      return skip satisfies never;
  }
}
