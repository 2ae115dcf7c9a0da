import { useState } from 'react';
import { fromMinor, magnitude, readAmount, toMinor } from '../../../core/numbers/amount.ts';
import { Money } from '../../parts/Money.tsx';
import { readTypedAmount } from '../../parts/typed.ts';
import { partOf } from './bench.ts';
import type { BenchProps } from './bench.types.ts';

/** How much of a line or item is allowed, and why not all of it. What is cut of a card charge becomes private. */
export function AllowedBench({ sheet, view, bench }: BenchProps) {
  const line = view.document.claim.lines.find((l) => l.id === bench.line)!;
  const { amount } = partOf(view, bench);
  const { currency } = line;
  const cut = bench.set.cut ?? null;
  const whole = toMinor(amount, currency);
  const [typed, setTyped] = useState(() => (cut ? fromMinor(whole - toMinor(cut.amount, currency), currency) : amount));
  const [reason, setReason] = useState(cut?.reason ?? '');
  const set = (nextTyped: string, nextReason: string) => {
    setTyped(nextTyped);
    setReason(nextReason);
    const allowed = readAmount(readTypedAmount(nextTyped, currency) ?? '', currency);
    const less = allowed === null ? null : whole - allowed;
    const next = less === null || less === 0n ? null : { amount: fromMinor(less, currency), reason: nextReason };
    sheet.setBench({ ...bench, set: { cut: next } });
  };
  const more = cut !== null && magnitude(whole - toMinor(cut.amount, currency)) > magnitude(whole);
  return (
    <div className="flex flex-wrap items-center gap-3">
      <label className="flex items-center gap-2">
        Allowed
        <input
          className="input input-sm w-32 text-right"
          autoFocus
          value={typed}
          onFocus={(e) => e.target.select()}
          onChange={(e) => set(e.target.value, reason)}
        />
      </label>
      <span className="quiet">
        of <Money amount={amount} currency={currency} />
      </span>
      <input
        className="input input-sm min-w-60 flex-1"
        aria-label="Why less is allowed"
        placeholder="Why less is allowed"
        maxLength={2000}
        value={reason}
        onChange={(e) => set(typed, e.target.value)}
      />
      <p className="quiet w-full text-sm">{more ? 'An amount is corrected downwards alone.' : becomes(line.paidBy)}</p>
    </div>
  );
}

/** What becomes of what is not allowed. */
const becomes = (paidBy: string): string =>
  paidBy === 'card'
    ? 'What is not allowed becomes private: the bank’s amount stays.'
    : 'What is not allowed is not paid. The claimant reads why.';
