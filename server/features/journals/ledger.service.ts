import { judgeAct } from '../../../core/workflow/judgeAct.ts';
import { claimLifecycle } from '../../../core/workflow/lifecycles/claim.ts';
import type { Line } from '../../../core/documents/case.schema.ts';
import type { JournalPage } from '../../../contract/journals.ts';
import { fromMinor } from '../../../core/numbers/amount.ts';
import { selectSettings } from '../../platform/acts/settings.queries.ts';
import { refusalOf } from '../../platform/acts/perform.ts';
import { FINANCE } from '../../../core/workflow/lifecycle.types.ts';
import { entitiesOf, type Actor, type Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { today } from '../../platform/ports/clock.ts';
import { selectEntityIds } from '../../records/book/book.queries.ts';
import { selectPeriods } from '../../records/book/periods.queries.ts';
import { claimFacts } from '../../records/claims/claimStore.ts';
import { selectClaim } from '../../records/claims/claims.queries.ts';
import type { JournalRowRecord } from '../../records/ledger/ledger.types.ts';
import { writeLedgerRow } from '../../records/ledger/postJournal.ts';
import { selectRows } from '../../records/ledger/journals.queries.ts';
import {
  JOURNAL_PAGE,
  selectCleared,
  selectJournalDocument,
  selectJournalHeader,
  selectJournalPage,
  selectJournalTotals,
  selectReceiptPages,
  type ClearedRow,
  type JournalListRow,
  type ReceiptPages,
} from './ledger.queries.ts';

type Reads = Pick<Context, 'db'>;

/** A page of the ledger, newest first; with the first one what everything that was asked for comes to. */
export async function viewJournals({ db }: Reads, actor: Actor, page: JournalPage) {
  const filter = { ...page, entities: entitiesOf(actor, FINANCE) };
  const rows = await selectJournalPage(db, filter);
  const totals = page.before ? null : await selectJournalTotals(db, filter);
  return {
    journals: rows.map(writeHeader),
    next: rows.length === JOURNAL_PAGE ? rows.at(-1)!.id : null,
    totals: totals?.map((t) => ({ ...t, amount: fromMinor(t.amount, t.currency) })) ?? null,
    entities: filter.entities ?? (await selectEntityIds(db)),
  };
}

/** Claims that wait to be posted, and whether this person may post each. */
export async function viewReady({ db }: Reads, actor: Actor) {
  const rows = await selectCleared(db, entitiesOf(actor, FINANCE));
  const settings = await selectSettings(db, ['clearing-and-posting-apart']);
  return { claims: rows.map((row) => writeReady(row, actor, settings)) };
}

function writeReady(row: ClearedRow, actor: Actor, settings: Record<string, unknown>) {
  const people = { claimant: row.claimant_id, preparer: row.preparer_id, clearer: row.cleared_by };
  const record = { state: 'cleared' as const, entity: row.entity, people };
  const judged = judgeAct(claimLifecycle, 'post', record, actor, { isOn: (s) => settings[s] !== false });
  return {
    number: row.number,
    revision: row.revision,
    entity: row.entity,
    claimant: row.claimant,
    purpose: row.purpose,
    clearedBy: row.clearedBy,
    currency: row.currency,
    toPay: row.to_pay === null ? null : fromMinor(row.to_pay, row.currency),
    mayPost: judged.ok,
    why: judged.ok ? null : refusalOf(judged, 'claim', row.number).says,
  };
}

/** A journal, each row with the line and the receipt it came from: those of its own document, not of today's claim. */
export async function viewJournal(context: Pick<Context, 'db' | 'clock'>, actor: Actor, number: string) {
  const { db, clock } = context;
  const header = await selectJournalHeader(db, number);
  if (!header || !FINANCE.some((role) => actor.holds(role, header.entity)))
    throw new Refused('not-found', { what: 'journal' });
  const rows = await selectRows(db, header.id);
  const document = await selectJournalDocument(db, header.id);
  const pages = await selectReceiptPages(db, Object.values(document?.receipts ?? {}));
  const { periods, timeZone } = await selectPeriods(db, header.entity);
  const now = today(clock, timeZone);
  return {
    journal: writeHeader(header),
    rows: rows.map((row) => ({
      ...writeLedgerRow(row, header.currency),
      share: row.share,
      origin: originOf(document, pages, row),
    })),
    openPeriods: periods
      .filter((p) => p.state === 'open' && p.from_date <= now && p.to_date >= header.date)
      .map((p) => ({ id: p.id, from: p.from_date, to: p.to_date < now ? p.to_date : now })),
    mayReverse: await mayReverse(db, actor, header),
  };
}

async function mayReverse(db: Db, actor: Actor, header: JournalListRow): Promise<boolean> {
  if (!header.live || header.source_kind !== 'claim') return false;
  const claim = (await selectClaim(db, claimOf(header)!.number))!;
  return judgeAct(claimLifecycle, 'reverse', claimFacts(claim), actor, { isOn: () => true }).ok;
}

type Document = NonNullable<Awaited<ReturnType<typeof selectJournalDocument>>>;

function originOf(document: Document | null, pages: ReceiptPages, row: JournalRowRecord) {
  const line = document?.claim.lines.find((l) => l.id === row.line_id);
  if (!document || !line) return null;
  return {
    merchant: line.merchant ?? null,
    category: line.category ?? null,
    date: line.date,
    amount: line.amount,
    currency: line.currency,
    share: shareOf(document, row),
    receipt: receiptOf(document, pages, line),
  };
}

function shareOf({ assessment }: Document, { line_id, item_id, share }: JournalRowRecord) {
  const line = assessment.lines.find((l) => l.id === line_id);
  const shares = line?.parts.find((p) => p.item === item_id)?.shares ?? [];
  const own = share === null ? undefined : shares[share];
  return own ? { of: shares.length, gross: own.gross, recoverable: own.recoverable, cost: own.cost } : null;
}

function receiptOf({ receipts }: Document, pages: ReceiptPages, { id: lineId, receipt }: Line) {
  const id = receipts[lineId];
  if (!id) return null;
  const { amount = null, currency = null, date = null, merchant = null } = receipt ?? {};
  return { id, amount, currency, date, merchant, pages: pages.get(id) ?? [] };
}

function claimOf({ source_kind, source_id }: JournalListRow): { number: string; version: number } | null {
  if (source_kind !== 'claim' && source_kind !== 'payment') return null;
  const [number, version] = source_id.split('/');
  return { number: number!, version: Number(version) };
}

const writeHeader = (row: JournalListRow) => ({
  number: row.number,
  entity: row.entity,
  currency: row.currency,
  date: row.date,
  purpose: row.purpose,
  source: { kind: row.source_kind, id: row.source_id },
  live: row.live,
  claim: claimOf(row)?.number ?? null,
  claimVersion: claimOf(row)?.version ?? null,
  person: row.person,
  about: row.about ?? '',
  reason: row.reason,
  postedBy: row.postedBy,
  postedAt: row.postedAt,
  reverses: row.reverses,
  reversedBy: row.reversedBy,
  total: fromMinor(row.total, row.currency),
});
