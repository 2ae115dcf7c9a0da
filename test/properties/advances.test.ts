import { describe, expect, it } from 'vitest';
import { assess, computeCase } from '../../core/assess/assess.ts';
import { assessLine } from '../../core/assess/assessLine.ts';
import { standingOf, type AdvanceMovement } from '../../core/advances/standing.ts';
import type { Case } from '../../core/documents/case.schema.ts';
import { openCase } from '../../core/figures/openCase.ts';
import { openItemMovements } from '../../core/ledger/openItemMovements.ts';
import { payOut } from '../../core/ledger/payOut.ts';
import { settleOpenItem } from '../../core/ledger/settleOpenItem.ts';
import { fromMinor, toMinor } from '../../core/numbers/amount.ts';
import { randomFrom, type Random } from '../../demo/random.ts';
import { line, makeCase, valid } from '../fixtures/caseBuilder.ts';

const LIVES = Number(process.env.EBBET_RANDOM_LIVES ?? 400);
const ACTS = 25;
const CURRENCIES = ['EUR', 'USD', 'JPY', 'BHD'] as const;
const rates = (['USD', 'JPY', 'BHD'] as const).map((to, i) => ({
  ...{ from: 'EUR', to, date: '2026-03-30', source: 'Made up' },
  rate: ['1.0837', '163.29', '0.40871'][i]!,
}));
const accounts = { ...makeCase({ lines: [] }).book.entities[0]!.accounts, bank: '1010' };

/** Advances of one person and the claims posted against them, with nothing but what the account of advances moved by. */
interface Life {
  advances: Map<string, { currency: string; paid: bigint; movements: AdvanceMovement[] }>;
  posted: { advance: string; amount: bigint; ledger: bigint }[][];
}
const openOf = (life: Life, id: string) => standingOf(life.advances.get(id)!.movements).open;

function pay(life: Life, r: Random): void {
  const id = `A${life.advances.size + 1}`;
  const currency = r.pick(CURRENCIES);
  const [paid, bank] = [BigInt(r.whole(1, 90_000)), BigInt(r.whole(1, 90_000))];
  const [movement] = openItemMovements(
    payOut({ id, currency, amount: paid }, { bank, ledgerCurrency: 'EUR', accounts }),
  );
  const movements = [{ by: 'advance payout' as const, amount: movement!.amount, ledger: movement!.ledgerAmount }];
  life.advances.set(id, { currency, paid, movements });
}

/** Assesses a random claim against what is open, in a random order with random limits, and moves the account by its journal. */
function post(life: Life, r: Random): void {
  const open = [...life.advances].filter(([id]) => openOf(life, id).amount > 0n);
  const chosen = open.filter(() => r.next() < 0.8).sort(() => r.next() - 0.5);
  const document = makeCase({
    lines: Array.from({ length: r.whole(1, 4) }, (_, i) => {
      const currency = r.pick(CURRENCIES);
      return line({
        id: String(i + 1),
        date: '2026-03-30',
        currency,
        amount: fromMinor(BigInt(r.whole(1, 60_000)), currency),
      });
    }),
    claim: {
      currency: r.pick(CURRENCIES),
      advances: chosen.map(([advance]) => ({ advance })),
    },
    book: {
      rates,
      advances: open.map(([id, { currency }]) => ({
        ...{ id, person: 'P1', currency },
        outstanding: fromMinor(openOf(life, id).amount, currency),
        ledgerOutstanding: fromMinor(openOf(life, id).ledger, 'EUR'),
      })),
    },
  });
  if (chosen[0] && r.next() < 0.3)
    document.claim.advances![0]!.upTo = fromMinor(BigInt(r.whole(0, 20_000)), document.claim.currency);
  const taken = takenBy(valid(document), life);
  for (const { advance, amount, ledger } of taken)
    life.advances.get(advance)!.movements.push({ by: 'claim', amount: -amount, ledger: -ledger });
  life.posted.push(taken);
}

/** What a claim moves of each advance, which is what its settlement says, and in value what its journal credits to the account. */
function takenBy(document: Case, life: Life) {
  const { journal, settlement } = assess(document);
  const open = openCase(document);
  const { rows } = computeCase(open, (one) => assessLine(open, one));
  const taken = openItemMovements(rows)
    .filter((m) => m.kind === 'staff advance')
    .map((m) => ({ advance: m.of!, amount: -m.amount, ledger: -m.ledgerAmount }));
  const said = settlement.advances.map(({ advance, advancePart, ledgerPart }) => ({
    advance,
    amount: toMinor(advancePart!, life.advances.get(advance)!.currency),
    ledger: toMinor(ledgerPart!, 'EUR'),
  }));
  const byName = (of: typeof said) => [...of].sort((a, b) => a.advance.localeCompare(b.advance));
  expect(byName(taken)).toEqual(byName(said.filter((t) => t.amount !== 0n)));
  const credited = journal.filter((row) => row.account === accounts.staffAdvances);
  expect(credited.reduce((sum, row) => sum + toMinor(row.credit, 'EUR'), 0n)).toBe(
    taken.reduce((sum, t) => sum + t.ledger, 0n),
  );
  return taken;
}

function reverse(life: Life, r: Random): void {
  if (life.posted.length === 0) return;
  const [undone] = life.posted.splice(r.whole(0, life.posted.length - 1), 1);
  for (const { advance, amount, ledger } of undone!)
    life.advances.get(advance)!.movements.push({ by: 'claim', amount, ledger });
}

/** Gives a part back, or all that is left. */
function giveBack(life: Life, r: Random): void {
  const open = [...life.advances.keys()].filter((id) => openOf(life, id).amount > 0n);
  if (open.length === 0) return;
  const id = r.pick(open);
  const { currency, movements } = life.advances.get(id)!;
  const { amount, ledger } = openOf(life, id);
  const back = r.next() < 0.4 ? amount : BigInt(r.whole(1, Number(amount)));
  const item = {
    kind: 'staff advance' as const,
    account: accounts.staffAdvances,
    currency,
    open: amount,
    booked: ledger,
  };
  const { rows, left } = settleOpenItem(item, {
    ...{ amount: back, bank: BigInt(r.whole(1, 90_000)), bankAccount: '1010' },
    ...{ exchangeAccount: accounts.exchangeDifference, ledgerCurrency: 'EUR', text: 'given back' },
  });
  for (const m of openItemMovements(rows))
    movements.push({ by: 'advance returned', amount: m.amount, ledger: m.ledgerAmount });
  expect(openOf(life, id)).toEqual({ amount: left.open, ledger: left.booked });
}

describe(`the lives of advances, ${LIVES} of them with ${ACTS} acts in any order`, () => {
  it('what they took, gave back and still owe is what was paid out, to the minor unit, and nothing open is worth nothing', () => {
    const seen = { settled: 0, reopened: 0 };
    for (let seed = 1; seed <= LIVES; seed += 1) {
      const r = randomFrom(seed);
      const life: Life = { advances: new Map(), posted: [] };
      pay(life, r);
      const settled = new Set<string>();
      for (let i = 0; i < ACTS; i += 1) {
        r.pick([pay, post, post, post, reverse, giveBack, giveBack])(life, r);
        for (const [id, { paid, movements }] of life.advances) {
          const { paidOut, accountedFor, givenBack, open } = standingOf(movements);
          const at = { seed, act: i, id };
          for (const unit of ['amount', 'ledger'] as const)
            expect({ ...at, sum: accountedFor[unit] + givenBack[unit] + open[unit] }).toEqual({
              ...at,
              sum: paidOut[unit],
            });
          expect({ ...at, paid: paidOut.amount, owes: open.amount >= 0n }).toEqual({ ...at, paid, owes: true });
          if (open.amount === 0n) {
            expect({ ...at, ledger: open.ledger }).toEqual({ ...at, ledger: 0n });
            settled.add(id);
            seen.settled += 1;
          } else if (settled.delete(id)) seen.reopened += 1;
        }
      }
    }
    // the lives hold what they are meant to try
    expect(seen.settled).toBeGreaterThan(LIVES);
    expect(seen.reopened).toBeGreaterThan(LIVES / 10);
  });
});
