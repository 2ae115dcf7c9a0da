import type { Assessment, TaxRow } from '../../../core/documents/assessment.schema.ts';
import type { Case } from '../../../core/documents/case.schema.ts';
import type { RowFigures } from '../../../core/figures/figures.types.ts';
import { openItemMovements, type OpenItemMovement } from '../../../core/ledger/openItemMovements.ts';
import { isWritten } from '../../../core/ledger/row.ts';
import { traceRows } from '../../../core/ledger/traceRows.ts';
import { toMinor } from '../../../core/numbers/amount.ts';
import type { JournalRowRecord, MovementRecord, Source, TaxRowRecord } from './ledger.types.ts';

/** Rows of any journal as records, from figures in minor units. */
export const rowRecords = (rows: readonly RowFigures[]): JournalRowRecord[] =>
  rows.filter(isWritten).map((row, index) => ({
    position: index + 1,
    account: row.account,
    coding: row.coding,
    debit: row.debit > 0n ? row.debit : 0n,
    credit: row.debit < 0n ? -row.debit : 0n,
    currency: row.currency,
    amount: row.amount,
    line_id: row.line,
    item_id: row.item,
    share: null,
    tax_code: row.taxCode,
    text: row.text,
  }));

/** The journal of an assessed claim as records, each cost row with the index of its share. */
export function claimRows(assessment: Assessment, ledgerCurrency: string): JournalRowRecord[] {
  const shares = traceRows(assessment);
  return assessment.journal.map((row, index) => ({
    position: index + 1,
    account: row.account,
    coding: row.coding,
    debit: toMinor(row.debit, ledgerCurrency),
    credit: toMinor(row.credit, ledgerCurrency),
    currency: row.currency,
    amount: toMinor(row.amount, row.currency),
    line_id: row.line,
    item_id: row.item,
    share: shares[index]!,
    tax_code: row.taxCode,
    text: row.text,
  }));
}

/** Whose items a journal moves: the person, its subject (for `of: null`), the entity that keeps central bookings. */
export interface MovementScope {
  person: string;
  subject: Source;
  entity: string;
}

/** Movements with the sources of the items they move: advances by themselves, clearing by card, the rest by subject. */
export function movementRecords(movements: readonly OpenItemMovement[], scope: MovementScope): MovementRecord[] {
  return movements.map(({ position, kind, of, account, currency, amount, ledgerAmount }) => {
    const source = sourceOf(kind, of, scope);
    const personal = kind === 'payable' || kind === 'receivable' || kind === 'staff advance';
    return {
      position,
      kind,
      account,
      currency,
      person_id: personal ? scope.person : null,
      source_kind: source.kind,
      source_id: source.id,
      amount,
      ledger_amount: ledgerAmount,
    };
  });
}

function sourceOf(kind: OpenItemMovement['kind'], of: string | null, { subject, entity }: MovementScope): Source {
  switch (kind) {
    case 'payable':
    case 'receivable':
      return subject;
    case 'staff advance':
      return of === null ? subject : { kind: 'advance', id: of };
    case 'card clearing':
      return of === null ? { kind: 'entity', id: entity } : { kind: 'card', id: of };
    case 'central clearing':
      return { kind: 'entity', id: entity };
    default:
      return kind satisfies never;
  }
}

/** Figures of any journal with the records they are posted as. */
export const journalRecords = (rows: readonly RowFigures[], scope: MovementScope) => ({
  rows: rowRecords(rows),
  movements: movementRecords(openItemMovements(rows), scope),
});

/** Every tax of a claim with its base, in ledger minor units, in the order of lines, items and codes. */
export function taxRecords({ lines }: Assessment, { claim, book }: Case): TaxRowRecord[] {
  const ledger = book.entities[0]!.currency;
  const dateOf = new Map(claim.lines.map((l) => [l.id, l.date]));
  const rows = lines.flatMap((line) =>
    line.parts.flatMap((part) =>
      part.tax.map((tax) => ({
        ...figuresOf(tax, ledger),
        date: dateOf.get(line.id)!,
        line_id: line.id,
        item_id: part.item,
      })),
    ),
  );
  return rows.map((row, index) => ({ position: index + 1, ...row }));
}

const figuresOf = (tax: TaxRow, ledger: string) => ({
  code: tax.code,
  component: tax.component,
  base: toMinor(tax.ledgerNet!, ledger),
  tax: toMinor(tax.ledgerTax!, ledger),
  recoverable: toMinor(tax.ledgerRecoverable!, ledger),
});
