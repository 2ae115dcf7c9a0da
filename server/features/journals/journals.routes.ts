import { stringify } from 'csv-stringify/sync';
import { Router } from 'express';
import { z } from 'zod';
import { parts } from '../../../core/documents/case.schema.ts';
import { fromMinor } from '../../../core/numbers/amount.ts';
import { FINANCE, type Context } from '../../platform/context.ts';
import { guardCell } from '../../platform/http/guardCell.ts';
import { actorOf, checked, needs, param } from '../../platform/http/guards.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { selectPeriods } from '../book/book.queries.ts';
import {
  selectCleared,
  selectExport,
  selectJournalHeader,
  selectJournalPage,
  selectRowOrigins,
  selectRows,
  type ExportRow,
  type JournalListRow,
} from './journals.queries.ts';
import { postClaim, reverseJournal } from './post.service.ts';

const key = z.string().min(8).max(100);
const postSchema = z.strictObject({
  claim: parts.id,
  revision: z.number().int().min(1),
  date: parts.date,
  digest: z.string().length(64).nullable(),
  key,
});
const reverseSchema = z.strictObject({
  date: parts.date,
  reason: z.string().trim().min(1, 'Say why it is reversed.').max(2000),
  key,
});
const exportSchema = z.strictObject({
  entity: parts.id.optional(),
  from: parts.date.optional(),
  to: parts.date.optional(),
});
const pageSchema = z.strictObject({
  before: z
    .string()
    .regex(/^\d{1,18}$/)
    .optional(),
});

/** The ledger: journals to read, post, reverse and download. */
export function journalRoutes(context: Context): Router {
  const { db } = context;
  const router = Router();
  router.use('/journals', needs(...FINANCE));

  router.get('/journals', async (req, res) => {
    const { before } = checked(pageSchema, req.query);
    const rows = await selectJournalPage(db, before ? BigInt(before) : null);
    res.json({ journals: rows.map(writeHeader), next: rows.length === 50 ? rows.at(-1)!.id : null });
  });

  router.get('/journals/ready', async (_req, res) => {
    res.json({ claims: await selectCleared(db) });
  });

  router.get('/journals/export.csv', async (req, res) => {
    const { entity, from, to } = checked(exportSchema, req.query);
    const rows = await selectExport(db, { entity: entity ?? null, from: from ?? null, to: to ?? null });
    res.type('text/csv').attachment('ledger.csv').send(writeCsv(rows));
  });

  router.get('/journals/:number', async (req, res) => {
    const header = await selectJournalHeader(db, param(req, 'number'));
    if (!header) throw new Refused('not-found', { what: 'journal' });
    const [rows, origins, periods] = await Promise.all([
      selectRows(db, header.id),
      selectRowOrigins(db, header.id),
      selectPeriods(db, header.entity),
    ]);
    const originOf = new Map(origins.map((o) => [o.position, o]));
    res.json({
      journal: writeHeader(header),
      rows: rows.map((row) => ({ ...writeRow(row, header.currency), origin: originOf.get(row.position) ?? null })),
      openPeriods: periods.filter((p) => p.state === 'open'),
    });
  });

  router.post('/journals', needs('controller'), async (req, res) => {
    res.status(201).json(await postClaim(context, actorOf(req), checked(postSchema, req.body)));
  });

  router.post('/journals/:number/reversal', needs('controller'), async (req, res) => {
    const body = checked(reverseSchema, req.body);
    res.status(201).json(await reverseJournal(context, actorOf(req), { journal: param(req, 'number'), ...body }));
  });
  return router;
}

const writeHeader = ({ id: _, total, ...row }: JournalListRow) => ({ ...row, total: fromMinor(total, row.currency) });

function writeRow(
  row: Omit<ExportRow, 'journal' | 'date' | 'kind' | 'entity' | 'ledger_currency' | 'claim'>,
  ledger: string,
) {
  return {
    position: row.position,
    account: row.account,
    coding: row.coding,
    debit: fromMinor(row.debit, ledger),
    credit: fromMinor(row.credit, ledger),
    currency: row.currency,
    amount: fromMinor(row.amount, row.currency),
    line: row.line_id,
    item: row.item_id,
    share: row.share,
    taxCode: row.tax_code,
    text: row.text,
  };
}

function writeCsv(rows: ExportRow[]): string {
  const dimensions = [...new Set(rows.flatMap((row) => Object.keys(row.coding)))].sort();
  const table = rows.map((row) => {
    const { coding, ...cells } = writeRow(row, row.ledger_currency);
    const head = { journal: row.journal, date: row.date, kind: row.kind, entity: row.entity, claim: row.claim };
    const codes = Object.fromEntries(dimensions.map((d) => [d, coding[d] ?? '']));
    return { ...head, ...cells, ...codes, ledgerCurrency: row.ledger_currency };
  });
  const guarded = table.map((row) => Object.fromEntries(Object.entries(row).map(([k, v]) => [k, guardCell(v)])));
  return `\uFEFF${stringify(guarded, { header: true, columns: columnsOf(dimensions), record_delimiter: 'windows' })}`;
}

function columnsOf(dimensions: string[]): string[] {
  const fixed = [
    'journal',
    'position',
    'date',
    'kind',
    'entity',
    'claim',
    'account',
    'debit',
    'credit',
    'ledgerCurrency',
    'amount',
    'currency',
  ];
  return [...fixed, ...dimensions, 'line', 'item', 'share', 'taxCode', 'text'];
}
