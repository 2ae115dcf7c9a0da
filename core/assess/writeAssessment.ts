import { isWritten } from '../ledger/row.ts';
import type { ComputedFinding } from '../documents/finding.ts';
import type {
  AssessedLine,
  AssessedPart,
  Assessment,
  JournalRow,
  Settlement,
  ShareRow,
} from '../documents/assessment.schema.ts';
import { rebillAmount } from '../figures/computed/rebillAmount.ts';
import { fromMinor } from '../numbers/amount.ts';
import type {
  Figure,
  LineFigures,
  OpenCase,
  PartFigures,
  RowFigures,
  SettlementFigures,
  ShareFigures,
} from '../figures/figures.types.ts';

interface Figures {
  lines: readonly LineFigures[];
  settlement: SettlementFigures;
  rows: readonly RowFigures[];
  findings: ComputedFinding[];
}

const write = (figure: Figure, currency: string): string | null =>
  figure === null ? null : fromMinor(figure, currency);

/**
 * Writes the figures of a case as a document. Example: a payable of 12300n in EUR → `"payable": "123.00"`; an unknown
 * figure → null. @param written lines that were written before, by their figures
 */
export function writeAssessment(
  open: OpenCase,
  { lines, settlement, rows, findings }: Figures,
  written: WeakMap<LineFigures, AssessedLine> = new WeakMap(),
): Assessment {
  const { number, version } = open.case.claim;
  return {
    format: 'ebbet-assessment/1',
    number,
    version,
    lines: lines.map((line) => written.get(line) ?? keep(written, line, writeLine(open, line))),
    settlement: writeSettlement(open, settlement),
    journal: rows.filter(isWritten).map((row) => writeRow(open, row)),
    findings: findings.map(({ taxCode: _, ...finding }) => finding),
  };
}

function keep<K extends object, V>(map: WeakMap<K, V>, key: K, value: V): V {
  map.set(key, value);
  return value;
}

/** Writes the figures of one line. Example: 123.00 of which 23.00 is tax → one part with one tax row. */
export function writeLine(open: OpenCase, { line, claimAmount, ledgerAmount, parts }: LineFigures): AssessedLine {
  return {
    id: line.id,
    claimAmount: write(claimAmount, open.claimCurrency),
    ledgerAmount: write(ledgerAmount, open.ledgerCurrency),
    parts: parts.map((part) => writePart(open, part, line.currency)),
    ...(line.rebill ? { rebilled: write(rebillAmount(claimAmount, line.rebill), open.claimCurrency) } : {}),
  };
}

function writePart(open: OpenCase, part: PartFigures, currency: string): AssessedPart {
  const ledger = open.ledgerCurrency;
  return {
    item: part.item,
    personal: part.personal,
    claimAmount: write(part.claimAmount, open.claimCurrency),
    ledgerAmount: write(part.ledgerAmount, ledger),
    tax: part.tax.map((row) => ({
      code: row.code,
      component: row.component,
      net: write(row.net, currency),
      tax: write(row.tax, currency),
      recoverable: write(row.recoverable, currency),
      ledgerNet: write(row.ledgerNet, ledger),
      ledgerTax: write(row.ledgerTax, ledger),
      ledgerRecoverable: write(row.ledgerRecoverable, ledger),
    })),
    shares: part.shares.map((share) => writeShare(share, currency, open.claimCurrency, ledger)),
  };
}

function writeShare(share: ShareFigures, currency: string, claim: string, ledger: string): ShareRow {
  return {
    account: share.account,
    coding: share.coding,
    gross: write(share.gross, currency),
    recoverable: write(share.recoverable, currency),
    selfAssessed: write(share.selfAssessed, currency),
    cost: write(share.cost, currency),
    claimAmount: write(share.claimAmount, claim),
    ledgerGross: write(share.ledgerGross, ledger),
    ledgerRecoverable: write(share.ledgerRecoverable, ledger),
    ledgerSelfAssessed: write(share.ledgerSelfAssessed, ledger),
    ledgerCost: write(share.ledgerCost, ledger),
  };
}

function writeSettlement(open: OpenCase, { due, advances, payable, receivable }: SettlementFigures): Settlement {
  const currency = open.claimCurrency;
  return {
    currency,
    due: write(due, currency),
    advances: advances.map(({ advance, applied, part, ledgerPart, left }) => ({
      advance: advance.id,
      applied: write(applied, currency),
      advancePart: write(part, advance.currency),
      ledgerPart: write(ledgerPart, open.ledgerCurrency),
      left: write(left, advance.currency),
    })),
    payable: write(payable, currency),
    receivable: write(receivable, currency),
  };
}

function writeRow(open: OpenCase, row: RowFigures): JournalRow {
  const ledger = open.ledgerCurrency;
  return {
    account: row.account,
    coding: row.coding,
    debit: fromMinor(row.debit > 0n ? row.debit : 0n, ledger),
    credit: fromMinor(row.debit < 0n ? -row.debit : 0n, ledger),
    currency: row.currency,
    amount: fromMinor(row.amount, row.currency),
    line: row.line,
    item: row.item,
    taxCode: row.taxCode,
    text: row.text,
  };
}
