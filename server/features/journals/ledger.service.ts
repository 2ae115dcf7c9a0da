import { judgeAct } from '../../../core/workflow/judgeAct.ts';
import { claimLifecycle } from '../../../core/workflow/lifecycles/claim.ts';
import { fromMinor } from '../../../core/numbers/amount.ts';
import { selectSettings } from '../../platform/acts/settings.queries.ts';
import { refusalOf } from '../../platform/acts/perform.ts';
import { entitiesOf, FINANCE, type Actor, type Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { today } from '../../platform/ports/clock.ts';
import { selectPeriods } from '../../records/book/periods.queries.ts';
import { claimFacts } from '../../records/claims/claimStore.ts';
import { selectClaim } from '../../records/claims/claims.queries.ts';
import { writeLedgerRow } from '../../records/ledger/postJournal.ts';
import { selectRows } from '../../records/ledger/journals.queries.ts';
import {
  JOURNAL_PAGE,
  selectCleared,
  selectJournalDocument,
  selectJournalHeader,
  selectJournalPage,
  type ClearedRow,
  type JournalListRow,
} from './ledger.queries.ts';

type Reads = Pick<Context, 'db'>;

/** A page of the ledger, newest first. */
export async function viewJournals({ db }: Reads, actor: Actor, before: string | null) {
  const rows = await selectJournalPage(db, before, entitiesOf(actor, FINANCE));
  return { journals: rows.map(writeHeader), next: rows.length === JOURNAL_PAGE ? rows.at(-1)!.id : null };
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
  const { periods, timeZone } = await selectPeriods(db, header.entity);
  const now = today(clock, timeZone);
  return {
    journal: writeHeader(header),
    rows: rows.map((row) => ({
      ...writeLedgerRow(row, header.currency),
      share: row.share,
      origin: originOf(document, row.line_id),
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

function originOf(document: Awaited<ReturnType<typeof selectJournalDocument>>, lineId: string | null) {
  const line = document?.claim.lines.find((l) => l.id === lineId);
  if (!document || !line) return null;
  return {
    merchant: line.merchant ?? null,
    category: line.category ?? null,
    date: line.date,
    receipt: document.receipts[line.id] ?? null,
  };
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
