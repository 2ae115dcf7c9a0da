import type { Claim, Item, Line } from '../../../core/documents/case.schema.ts';
import { fromMinor } from '../../../core/numbers/amount.ts';
import { groupBy } from '../../../core/numbers/groupBy.ts';
import type { Db } from '../../platform/db/connect.ts';
import { selectExplanations, selectWantedAdvances, type ClaimRow } from './claims.queries.ts';
import type { VersionKey } from './versionKey.ts';
import {
  selectItems,
  selectLines,
  selectShares,
  selectTaxEntries,
  type ItemRow,
  type LineRow,
  type ShareRow,
  type TaxEntryRow,
} from './lines.queries.ts';
import { writeReceipt } from './evidence.ts';
import type { ReceiptRow } from './evidence.queries.ts';

/** Parts of lines, by line id. */
interface Parts {
  items: ReadonlyMap<string, ItemRow[]>;
  taxEntries: ReadonlyMap<string, TaxEntryRow[]>;
  shares: ReadonlyMap<string, ShareRow[]>;
}

/** The claim of a case document from the rows of a version; amounts become decimal strings. `submittedOn` stands in for a draft's. */
export async function readDocument(
  db: Db,
  claim: ClaimRow,
  receipts: ReadonlyMap<string, ReceiptRow>,
  submittedOn: string,
): Promise<Claim> {
  const key: VersionKey = { claim_id: claim.id, version: claim.version };
  const lines = await readLines(db, key, receipts);
  const advances = await selectWantedAdvances(db, key);
  const explanations = await selectExplanations(db, key);
  return {
    ...headerOf(claim),
    submittedOn: claim.submitted_on ?? submittedOn,
    advances: advances.map((a) => ({
      advance: a.advance_id,
      upTo: a.up_to === null ? null : fromMinor(a.up_to, claim.currency),
    })),
    lines,
    ...(explanations.length > 0
      ? { explanations: explanations.map(({ line_id: line, ...said }) => ({ line, ...said })) }
      : {}),
  };
}

/** One line of a version in preparation as its rows say it is, without its receipt; undefined where there is none. */
export const readLine = async (db: Db, key: VersionKey, line: string): Promise<Line | undefined> =>
  (await readLines(db, { ...key, line }, new Map()))[0];

async function readLines(
  db: Db,
  part: VersionKey & { line?: string },
  receipts: ReadonlyMap<string, ReceiptRow>,
): Promise<Line[]> {
  // One after the other: inside a transaction there is one connection, which takes one query at a time.
  const lines = await selectLines(db, part);
  const parts: Parts = {
    items: groupBy(await selectItems(db, part), (i) => i.line_id),
    taxEntries: groupBy(await selectTaxEntries(db, part), (t) => t.line_id),
    shares: groupBy(await selectShares(db, part), (s) => s.line_id),
  };
  return lines.map((line) => writeLine(line, parts, receipts.get(line.id)));
}

const headerOf = (claim: ClaimRow) => ({
  number: claim.number,
  version: claim.version,
  entity: claim.entity_id,
  claimant: claim.claimant_id,
  currency: claim.currency,
  purpose: claim.purpose,
  from: claim.trip_from,
  to: claim.trip_to,
  coding: claim.coding,
  plan: claim.plan,
});

/** Every fact a line has but what finance cuts of it, which stands in the assessed document alone: one that is added is missed here by the compiler. */
type WrittenLine = { [Fact in Exclude<keyof Line, 'cut' | 'rebill'>]-?: Line[Fact] } & Pick<Line, 'rebill'>;

function writeLine(row: LineRow, parts: Parts, receipt: ReceiptRow | undefined): WrittenLine {
  const items = parts.items.get(row.id) ?? [];
  return {
    id: row.id,
    date: row.date,
    category: row.category,
    nights: row.nights,
    attendees: row.attendees,
    fields: row.fields,
    paidBy: row.paid_by,
    card: row.card,
    amount: fromMinor(row.amount, row.currency),
    currency: row.currency,
    country: row.country,
    merchant: row.merchant,
    description: row.description,
    personal: row.personal,
    quantity: row.quantity,
    estimate: row.estimate,
    journey: row.journey,
    stay: row.stay,
    ...(row.rebill ? { rebill: row.rebill } : {}),
    rate: writeRate(row),
    receipt: receipt ? writeReceipt(receipt) : null,
    coding: row.coding,
    tax: items.length ? [] : writeTax(parts, row, null),
    split: items.length ? null : writeSplit(parts, row, row.id, null),
    items: items.map((item) => writeItem(row, item, parts)),
  };
}

const writeItem = (line: LineRow, item: ItemRow, parts: Parts): Item => ({
  id: item.id,
  category: item.category,
  amount: fromMinor(item.amount, line.currency),
  description: item.description,
  personal: item.personal,
  quantity: item.quantity,
  tax: writeTax(parts, line, item.id),
  coding: item.coding,
  split: writeSplit(parts, item, line.id, item.id),
});

function writeRate(row: LineRow): Line['rate'] {
  switch (row.rate_kind) {
    case 'reference':
      return { kind: 'reference' };
    case 'own':
      return { kind: 'own', value: row.rate_value! };
    case 'card':
      return {
        kind: 'card',
        settled: { amount: fromMinor(row.settled_amount!, row.settled_currency!), currency: row.settled_currency! },
      };
    default:
      return row.rate_kind satisfies never;
  }
}

function writeTax({ taxEntries }: Parts, line: LineRow, item: string | null) {
  const write = (minor: bigint | null) => (minor === null ? null : fromMinor(minor, line.currency));
  return (taxEntries.get(line.id) ?? [])
    .filter((entry) => entry.item_id === item)
    .map((entry) => ({ code: entry.code, gross: write(entry.gross), tax: write(entry.tax) }));
}

type SplitColumns = Pick<LineRow, 'split_by' | 'split_unit'>;
function writeSplit({ shares }: Parts, row: SplitColumns, line: string, item: string | null): Line['split'] {
  if (row.split_by === null) return null;
  return {
    by: row.split_by,
    ...(row.split_unit === null ? {} : { unit: row.split_unit }),
    shares: (shares.get(line) ?? []).filter((s) => s.item_id === item).map(({ coding, value }) => ({ coding, value })),
  };
}
