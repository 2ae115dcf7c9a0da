import type { LineSeed } from '../claims/claim.types.ts';
import type { YearClaim } from './claims.ts';

/** Something put wrong on purpose: what to look for, and the claim before and after. */
export interface Fault {
  says: string;
  /** An honest mistake, or a trick. */
  kind: 'mistake' | 'trick';
  put(claim: YearClaim, others: readonly YearClaim[]): void;
}

const swapped = (amount: string): string => {
  const digits = [...amount];
  const at = digits.findIndex((d, i) => /\d/.test(d) && /\d/.test(digits[i + 1] ?? '') && d !== digits[i + 1]);
  if (at >= 0) [digits[at], digits[at + 1]] = [digits[at + 1]!, digits[at]!];
  return digits.join('');
};
const receipt = (claim: YearClaim, i: number, fields: object) => {
  claim.lines[i] = { ...claim.lines[i]!, receipt: { ...claim.lines[i]!.receipt, ...fields } };
};
const line = (claim: YearClaim, i: number, fields: object) => {
  claim.lines[i] = { ...claim.lines[i]!, ...fields };
};
/** What a line would say in dollars, or in euro where it is in dollars, digit for digit. */
const inOther = ({ amount, currency }: LineSeed) => ({
  amount: Number(amount).toFixed(2),
  currency: currency === 'USD' ? 'EUR' : 'USD',
});
const last = (claim: YearClaim) => claim.lines.length - 1;

/** Each on a claim of its own in review, in this order; the README lists them. */
export const faults: readonly Fault[] = [
  {
    kind: 'mistake',
    says: 'two digits of the first amount are swapped',
    put: (c) => receipt(c, 0, { amount: swapped(c.lines[0]!.amount) }),
  },
  { kind: 'mistake', says: 'the first line has no paper', put: (c) => void (c.papers[0] = null) },
  {
    kind: 'mistake',
    says: 'the last paper is of the day after',
    put: (c) => receipt(c, last(c), { day: c.lines[last(c)]!.day + 1 }),
  },
  {
    kind: 'mistake',
    says: 'the first paper has no tax number of the merchant',
    put: (c) => receipt(c, 0, { taxNumber: null }),
  },
  {
    kind: 'mistake',
    says: 'the last paper is in another currency than its line',
    put: (c) => receipt(c, last(c), { ...inOther(c.lines[last(c)]!) }),
  },
  {
    kind: 'mistake',
    says: 'the first line names another shop than its paper',
    put: (c) => receipt(c, 0, { merchant: 'Quay Hardware' }),
  },
  { kind: 'mistake', says: 'the last line has no paper', put: (c) => void (c.papers[last(c)] = null) },
  {
    kind: 'mistake',
    says: 'two digits of the last amount are swapped',
    put: (c) => receipt(c, last(c), { amount: swapped(c.lines[last(c)]!.amount) }),
  },
  {
    kind: 'mistake',
    says: 'the text of the first line is longer than the ledger takes',
    put: (c) => line(c, 0, { text: 'For the whole crew after the long day on the eastern transects, as was agreed' }),
  },
  {
    kind: 'mistake',
    says: 'the first paper is a month older',
    put: (c) => receipt(c, 0, { day: c.lines[0]!.day - 30 }),
  },
  {
    kind: 'mistake',
    says: 'the first line is coded to a project that is not the claim’s',
    put: (c) => line(c, 0, { coding: { fund: '20', project: 'MANG-02' } }),
  },
  { kind: 'mistake', says: 'the second line has no paper', put: (c) => void (c.papers[1] = null) },
  {
    kind: 'trick',
    says: 'a line of a colleague’s claim is claimed a second time',
    put: (c, others) => repeat(c, others),
  },
  { kind: 'trick', says: 'one purchase is in two parts, each below what needs a paper', put: (c) => inParts(c) },
  {
    kind: 'trick',
    says: 'a one stands before the first amount that is not on its paper',
    put: (c) => line(c, 0, { receipt: { amount: c.lines[0]!.amount }, amount: `1${c.lines[0]!.amount}` }),
  },
  { kind: 'trick', says: 'a supper is claimed by two who ate together', put: (c, others) => repeat(c, others) },
];

/** The first line of the claim before is on this one too, without its paper. */
function repeat(claim: YearClaim, others: readonly YearClaim[]): void {
  const before = others[others.indexOf(claim) - 1]!;
  const { receipt: _, ...copied } = before.lines[0]!;
  claim.lines.push({ ...copied, day: copied.day + before.daysAgo - claim.daysAgo > 0 ? 0 : copied.day });
  claim.daysAgo = before.daysAgo;
  claim.papers.push(null);
}

function inParts(claim: YearClaim): void {
  const part = { day: 0, category: 'supplies', country: 'IE', currency: 'EUR', merchant: 'Wexford Chandlery' };
  claim.lines.push(
    { ...part, amount: '24.80', text: 'Rope, first part' },
    { ...part, amount: '24.60', text: 'Rope, the rest' },
  );
  claim.papers.push(null, null);
}

/** Puts each fault on a claim in review; which stands where. */
export function putFaults(claims: readonly YearClaim[]): { number: string; fault: Fault }[] {
  const reviewed = claims.filter((c) => c.state === 'in review');
  return faults.slice(0, reviewed.length - 1).map((fault, i) => {
    const claim = reviewed[i + 1]!;
    fault.put(claim, reviewed);
    return { number: claim.number, fault };
  });
}
