import { createHash, createHmac } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import type { z } from 'zod';
import { firstProblem, writePath } from '../core/documents/readCase.ts';
import {
  eventSchema,
  journalSchema,
  wordsSchema,
  type ExportedJournal,
  type ExportedWords,
} from '../core/documents/record.schema.ts';
import { journalVerifier, type AboutJournal, type JournalFault } from '../core/ledger/verifyJournals.ts';
import {
  chainVerifier,
  markVerifier,
  wordsVerifier,
  type ChainFault,
  type ChainSeal,
  type ExportedEvent,
} from '../core/workflow/verifyChain.ts';
import { documentsOf, type Source } from './documents.ts';
import { complain, print, readOptions, type Command } from './options.ts';

const help = `Usage: ebbet verify [--seals] [--against SEALS] [--journals JOURNALS] [--words WORDS] [--key KEYFILE] [FILE…]

Walks an exported history (JSON lines of ebbet-event/2) and checks that every event is as it was written and follows the
one before it. Removed words do not break the chain; a changed, inserted, missing or reordered event does.

  --seals               print where each record's chain ends, one JSON object a line, to be kept elsewhere
  --against SEALS       check that the chains still hold the ends kept earlier, so that a cut tail shows
  --journals JOURNALS   check exported journals (JSON lines of ebbet-journal/1) too: each balances, is what was posted, and
                        is the one that its event is about
  --words WORDS         check exported words (JSON lines of ebbet-words/1) against the hashes in their events
  --key KEYFILE         check by the key of the application (HISTORY_KEY, in a file) that it wrote every event

Exit code 0 when all is intact, 1 when it is not (each fault is a line on standard error), 2 when it cannot be read.`;

const EVENT_FAULTS: Record<ChainFault['what'], string> = {
  hash: 'is not what was written: its hash does not fit',
  previous: 'does not follow the event before it',
  gap: 'comes after a gap: events are missing before it',
  order: 'is out of order or repeated',
  mark: 'was not written by the application: its mark does not fit',
  unmarked: 'was not written by the application: it has no mark',
  replayed: 'was written once and stands twice',
  words: 'had other words: theirs do not fit its hash',
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
  const text = { type: 'string' } as const;
  const options = { seals: { type: 'boolean' }, against: text, journals: text, words: text, key: text } as const;
  const { values, operands } = readOptions(args, options);
  try {
    const kept = values.against ? await readSeals(values.against) : new Map<string, ChainSeal>();
    const key = values.key ? await readKey(values.key) : null;
    const walked = await walk(operands, kept, key);
    const journalFaults = values.journals ? await checkJournals(values.journals, walked.about) : 0;
    const wordFaults = values.words ? await checkWords(values.words, walked.words) : 0;
    const faults = walked.faults + kept.size + journalFaults + wordFaults;
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
async function walk(files: string[], kept: Map<string, ChainSeal>, key: string | null) {
  const verifier = chainVerifier(sha256);
  const words = wordsVerifier(sha256);
  const marks = key === null ? null : markVerifier((said) => createHmac('sha256', key).update(said).digest('hex'));
  const about: AboutJournal[] = [];
  let [events, faults] = [0, 0];
  for await (const source of documentsOf(files, true)) {
    const event = checked<ExportedEvent>(source, eventSchema);
    events += 1;
    words.event(event);
    for (const fault of [...verifier.next(event), ...(marks?.next(event) ?? [])]) {
      faults += 1;
      complain(`${source.file}:${source.line} ${fault.record}, event ${fault.seq} ${EVENT_FAULTS[fault.what]}`);
    }
    about.push(...aboutJournal(event));
    const seal = kept.get(`${event.recordKind} ${event.recordId}`);
    if (seal && seal.seq === event.seq && seal.hash === event.hash) kept.delete(seal.record);
  }
  for (const fault of marks?.missing() ?? []) {
    faults += 1;
    complain(`${fault.record}, event ${fault.seq} ${EVENT_FAULTS[fault.what]}`);
  }
  return { events, faults, about, words, seals: verifier.seals() };
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

async function checkWords(file: string, verifier: ReturnType<typeof wordsVerifier>): Promise<number> {
  let count = 0;
  for await (const source of documentsOf([file], true))
    for (const fault of verifier.next(checked<ExportedWords>(source, wordsSchema))) {
      count += 1;
      complain(`${fault.record}, event ${fault.seq} ${EVENT_FAULTS[fault.what]}`);
    }
  return count;
}

async function readKey(file: string): Promise<string> {
  const key = await readFile(file, 'utf8').catch(() => '');
  if (key.trim() !== '') return key.trim();
  complain(`${file}:1 document: there is no key in it`);
  throw new Unreadable();
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
