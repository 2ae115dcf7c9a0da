import type {
  AppliedAdvance,
  LineFigures,
  OpenCase,
  PartFigures,
  RowFigures,
  SettlementFigures,
  TaxFigures,
} from '../figures/figures.types.ts';
import { referenceConverter } from '../figures/currency/converter.ts';
import { finding, type Finding } from '../documents/finding.ts';
import { signOf, toMinor } from '../numbers/amount.ts';
import { roundHalfAway } from '../numbers/roundHalfAway.ts';
import { balanced } from './row.ts';
import { dueOf } from '../figures/settlement/settle.ts';

export interface JournalResult {
  /** Empty when a figure is missing: a journal is never invented. */
  rows: RowFigures[];
  findings: Finding[];
}

const EMPTY: JournalResult = { rows: [], findings: [] };

/**
 * The journal of a claim in ledger currency: costs, taxes, clearing accounts, the one payable or receivable of the
 * person, advances, exchange differences. Debits equal credits by construction, and are checked. Example: own 123.00 with 23.00 reclaimable → Dr cost 100.00, Dr tax
 * 23.00, Cr payable 123.00.
 */
export function buildJournal(
  open: OpenCase,
  lines: readonly LineFigures[],
  settlement: SettlementFigures,
): JournalResult {
  if (!computable(lines, settlement)) return EMPTY;
  const person = personRows(open, lines, settlement);
  if (person.findings.length > 0) return person;
  const rows = balanced([
    ...lines.flatMap(costRows),
    ...lines.flatMap(taxRows),
    ...lines.flatMap((line) => clearingRows(open, line)),
    ...person.rows,
  ]);
  return { rows, findings: [] };
}

function computable(lines: readonly LineFigures[], settlement: SettlementFigures): boolean {
  const known = lines.every(
    (line) =>
      line.whole
      && line.ledgerAmount !== null
      && line.parts.every((part) => part.shares.every((s) => s.ledgerCost !== null && s.cost !== null)),
  );
  return known && settlement.payable !== null && settlement.receivable !== null;
}

function costRows({ line, parts }: LineFigures): RowFigures[] {
  return parts.flatMap((part) =>
    part.shares.map((share) => ({
      account: share.account,
      coding: share.coding,
      debit: share.ledgerCost!,
      currency: line.currency,
      amount: share.cost!,
      ...at(line.id, part.item),
      text: line.description ?? line.merchant ?? '',
    })),
  );
}

function taxRows({ line, parts }: LineFigures): RowFigures[] {
  return parts.flatMap((part) => {
    const where = { coding: {}, currency: line.currency, line: line.id, item: part.item };
    return [...taxGroups(part).entries()].flatMap(([taxCode, group]) => {
      const { account, outputAccount } = group[0]!;
      const back = {
        ...where,
        account,
        taxCode,
        debit: sum(group, 'ledgerRecoverable'),
        amount: sum(group, 'recoverable'),
      };
      if (outputAccount === null) return [{ ...back, text: `Reclaimable tax ${taxCode}` }];
      const owed = {
        ...where,
        account: outputAccount,
        taxCode,
        debit: -sum(group, 'ledgerTax'),
        amount: -sum(group, 'tax'),
      };
      return [
        { ...back, text: `Reclaimable tax ${taxCode}, self-assessed` },
        { ...owed, text: `Tax owed ${taxCode}, self-assessed` },
      ];
    });
  });
}

/** Tax rows of one part by code and component: entries of the same code make one journal row. */
function taxGroups(part: PartFigures): Map<string, TaxFigures[]> {
  const groups = new Map<string, TaxFigures[]>();
  for (const row of part.tax) {
    const key = row.component === null ? row.code : `${row.code}/${row.component}`;
    groups.set(key, [...(groups.get(key) ?? []), row]);
  }
  return groups;
}

const sum = (rows: TaxFigures[], column: 'recoverable' | 'ledgerRecoverable' | 'tax' | 'ledgerTax'): bigint =>
  rows.reduce((a, row) => a + row[column]!, 0n);

function clearingRows(open: OpenCase, { line, amount, ledgerAmount }: LineFigures): RowFigures[] {
  const { accounts, cards } = open.entity;
  if (line.paidBy === 'own') return [];
  const settled = line.rate?.kind === 'card' ? line.rate.settled : null;
  const currency = settled?.currency ?? line.currency;
  const onCard = line.paidBy === 'card';
  const account = onCard ? (line.card && cards?.[line.card]) || accounts.cardClearing : accounts.centralClearing;
  return [
    {
      account,
      coding: {},
      debit: -ledgerAmount!,
      currency,
      amount: -(settled ? toMinor(settled.amount, settled.currency) : amount),
      ...at(line.id, null),
      text: onCard ? `Card charge ${line.merchant ?? ''}`.trim() : `Paid centrally ${line.merchant ?? ''}`.trim(),
      moves: onCard ? { kind: 'card clearing', of: line.card ?? null } : { kind: 'central clearing', of: null },
    },
  ];
}

/** Payable or receivable of the person, what the advances take of it, and the exchange differences left by both. */
function personRows(open: OpenCase, lines: readonly LineFigures[], settlement: SettlementFigures): JournalResult {
  const value = dueOf(lines, 'ledgerAmount')!;
  const due = settlement.due!;
  const booked = bookedValue(open, value, due);
  if (booked === null) return { rows: [], findings: [rateMissing(open)] };
  const rows: RowFigures[] = [];
  if (due !== 0n) rows.push(dueRow(open, booked, due));
  rows.push(exchangeRow(open, booked - value, 'Exchange difference between what is due and its ledger value'));
  rows.push(...advanceRows(open, settlement.advances, booked, due));
  return { rows, findings: [] };
}

/**
 * The ledger value of the payable row (positive: owed to the person). Normally the lines' own ledger value; when that
 * cannot stand for the due amount (0, or of the opposite sign) the due converted at the posting date; null without a rate.
 */
function bookedValue(open: OpenCase, value: bigint, due: bigint): bigint | null {
  if (due === 0n) return 0n;
  if (signOf(value) === signOf(due)) return value;
  return referenceConverter(open.rates, open.claimCurrency, open.ledgerCurrency, open.case.postingDate).convert(due);
}

function dueRow(open: OpenCase, booked: bigint, due: bigint): RowFigures {
  const receivable = due < 0n;
  return {
    account: receivable ? open.entity.accounts.staffReceivable : payableAccount(open),
    coding: {},
    debit: -booked,
    currency: open.claimCurrency,
    amount: -due,
    ...at(null, null),
    text: receivable ? 'Receivable from the claimant' : 'Payable to the claimant',
    moves: { kind: receivable ? 'receivable' : 'payable', of: null },
  };
}

function payableAccount(open: OpenCase): string {
  const { claimant } = open.case.claim;
  const kind = open.people.on(claimant, open.case.postingDate)?.kind;
  return kind === 'contractor' ? open.entity.accounts.supplierPayable : open.entity.accounts.claimantPayable;
}

function advanceRows(open: OpenCase, advances: readonly AppliedAdvance[], booked: bigint, due: bigint): RowFigures[] {
  let dueLeft = due;
  let bookedLeft = booked;
  return advances.flatMap(({ advance, applied, part, ledgerPart }) => {
    if (applied === 0n || applied === null) return [];
    const taken = applied === dueLeft ? bookedLeft : roundHalfAway(booked * applied, due);
    dueLeft -= applied;
    bookedLeft -= taken;
    const text = `Advance ${advance.id} accounted for`;
    return [
      {
        account: payableAccount(open),
        coding: {},
        debit: taken,
        currency: open.claimCurrency,
        amount: applied,
        ...at(null, null),
        text,
        moves: { kind: 'payable', of: null },
      },
      {
        account: open.entity.accounts.staffAdvances,
        coding: {},
        debit: -ledgerPart!,
        currency: advance.currency,
        amount: -part!,
        ...at(null, null),
        text,
        moves: { kind: 'staff advance', of: advance.id },
      },
      exchangeRow(open, ledgerPart! - taken, `Exchange difference on advance ${advance.id}`),
    ];
  });
}

function exchangeRow(open: OpenCase, debit: bigint, text: string): RowFigures {
  const { exchangeDifference } = open.entity.accounts;
  return {
    account: exchangeDifference,
    coding: {},
    debit,
    currency: open.ledgerCurrency,
    amount: debit,
    ...at(null, null),
    text,
  };
}

function rateMissing(open: OpenCase): Finding {
  const { postingDate, book } = open.case;
  const numbers = {
    from: open.claimCurrency,
    to: open.ledgerCurrency,
    date: postingDate,
    days: String(book.maxRateAge ?? 7),
  };
  return finding('rate-missing', { line: null, item: null }, numbers);
}

const at = (line: string | null, item: string | null) => ({ line, item, taxCode: null });
