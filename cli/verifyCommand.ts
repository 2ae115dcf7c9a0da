import { createHash } from 'node:crypto';
import type { z } from 'zod';
import { firstProblem, writePath } from '../core/documents/readCase.ts';
import { eventSchema, journalSchema, type ExportedJournal } from '../core/documents/record.schema.ts';
import { journalVerifier, type AboutJournal, type JournalFault } from '../core/ledger/verifyJournals.ts';
import { chainVerifier, type ChainFault, type ChainSeal, type ExportedEvent } from '../core/workflow/verifyChain.ts';
import { documentsOf, type Source } from './documents.ts';
import { complain, print, readOptions, type Command } from './options.ts';

const help = `Usage: ebbet verify [--seals] [--against SEALS] [--journals JOURNALS] [FILE…]

Walks an exported history (JSON lines of ebbet-event/2) and checks that every event is as it was written and follows the
one before it. Removed words do not break the chain; a changed, inserted, missing or reordered event does.

  --seals               print where each record's chain ends, one JSON object a line, to be kept elsewhere
  --against SEALS       check that the chains still hold the ends kept earlier, so that a cut tail shows
  --journals JOURNALS   check exported journals (JSON lines of ebbet-journal/1) too: each balances, is what was posted, and
                        is the one that its event is about

Exit code 0 when all is intact, 1 when it is not (each fault is a line on standard error), 2 when it cannot be read.`;

const EVENT_FAULTS: Record<ChainFault['what'], string> = {
  hash: 'is not what was written: its hash does not fit',
  previous: 'does not follow the event before it',
  gap: 'comes after a gap: events are missing before it',
  order: 'is out of order or repeated',
};
const JOURNAL_FAULTS: Record<JournalFault['what'], (fault: JournalFault) => string> = {
  hash: () => 'is not what was posted: its hash does not fit',
  balance: () => 'is out of balance',
  repeated: () => 'comes twice',
  missing: ({ event }) => `, which ${event} is about, is missing`,
  other: ({ event }) => `is another than ${event} is about`,
  'without event': () => 'was posted without an event that tells of it',
};
const sha256 = (text: string): string => createHash('sha256').update(text).digest('hex');

/** What could not be read; it was complained about already. */
class Unreadable extends Error {}

async function run(args: string[]): Promise<number> {
  const options = { seals: { type: 'boolean' }, against: { type: 'string' }, journals: { type: 'string' } } as const;
  const { values, operands } = readOptions(args, options);
  try {
    const kept = values.against ? await readSeals(values.against) : new Map<string, ChainSeal>();
    const walked = await walk(operands, kept);
    const journalFaults = values.journals ? await checkJournals(values.journals, walked.about) : 0;
    const faults = walked.faults + kept.size + journalFaults;
    for (const seal of kept.values())
      complain(`${seal.record}, event ${seal.seq} was there when it was sealed and is not, or is another now`);
    if (values.seals) for (const seal of walked.seals) await print(JSON.stringify(seal));
    else
      await print(
        `${walked.events} events of ${walked.seals.length} records, ${faults === 0 ? 'intact' : `${faults} faults`}`,
      );
    return faults === 0 ? 0 : 1;
  } catch (error) {
    if (error instanceof Unreadable) return 2;
    throw error;
  }
}

/** Walks the events; seals that still hold are taken out of `kept`. */
async function walk(files: string[], kept: Map<string, ChainSeal>) {
  const verifier = chainVerifier(sha256);
  const about: AboutJournal[] = [];
  let [events, faults] = [0, 0];
  for await (const source of documentsOf(files, true)) {
    const event = checked<ExportedEvent>(source, eventSchema);
    events += 1;
    for (const fault of verifier.next(event)) {
      faults += 1;
      complain(`${source.file}:${source.line} ${fault.record}, event ${fault.seq} ${EVENT_FAULTS[fault.what]}`);
    }
    about.push(...aboutJournal(event));
    const seal = kept.get(`${event.recordKind} ${event.recordId}`);
    if (seal && seal.seq === event.seq && seal.hash === event.hash) kept.delete(seal.record);
  }
  return { events, faults, about, seals: verifier.seals() };
}

const aboutJournal = ({ recordKind, recordId, seq, facts, about }: ExportedEvent): AboutJournal[] =>
  typeof facts.journal === 'string'
    ? [{ event: `event ${seq} of ${recordKind} ${recordId}`, journal: facts.journal, hash: about }]
    : [];

async function checkJournals(file: string, about: readonly AboutJournal[]): Promise<number> {
  const verifier = journalVerifier(sha256);
  const faults: JournalFault[] = [];
  for await (const source of documentsOf([file], true))
    faults.push(...verifier.next(checked<ExportedJournal>(source, journalSchema)));
  faults.push(...verifier.against(about));
  for (const fault of faults)
    complain(`journal ${fault.journal} ${JOURNAL_FAULTS[fault.what](fault)}`.replace(' ,', ','));
  return faults.length;
}

function checked<T>(source: Source, schema: z.ZodType): T {
  const problem = 'unreadable' in source ? { path: [], message: source.unreadable } : firstProblem(schema, source.json);
  if (!problem && !('unreadable' in source)) return source.json as T;
  complain(`${source.file}:${source.line} ${writePath(problem!.path)}: ${problem!.message}`);
  throw new Unreadable();
}

async function readSeals(file: string): Promise<Map<string, ChainSeal>> {
  const seals = new Map<string, ChainSeal>();
  for await (const source of documentsOf([file], true)) {
    if ('unreadable' in source) {
      complain(`${source.file}:${source.line} document: ${source.unreadable}`);
      throw new Unreadable();
    }
    const seal = source.json as ChainSeal;
    seals.set(seal.record, seal);
  }
  return seals;
}

export const verifyCommand: Command = { help, run };
