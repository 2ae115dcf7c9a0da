import { createHash } from 'node:crypto';
import { eventSchema } from '../core/documents/assessment.schema.ts';
import { firstProblem, writePath } from '../core/documents/readCase.ts';
import { chainVerifier, type ChainFault, type ChainSeal, type ExportedEvent } from '../core/workflow/verifyChain.ts';
import { documentsOf } from './documents.ts';
import { complain, print, readOptions, type Command } from './options.ts';

const help = `Usage: ebbet verify [--seals] [--against SEALS] [FILE…]

Walks an exported history (JSON lines of ebbet-event/2) and checks that every event is as it was written and follows the
one before it. Removed words do not break the chain; a changed, inserted, missing or reordered event does.

  --seals           print where each record's chain ends, one JSON object a line, to be kept elsewhere
  --against SEALS   check that the chains still hold the ends kept earlier, so that a cut tail shows

Exit code 0 when the history is intact, 1 when it is not (each fault is a line on standard error), 2 when it cannot be read.`;

const FAULTS: Record<ChainFault['what'], string> = {
  hash: 'is not what was written: its hash does not fit',
  previous: 'does not follow the event before it',
  gap: 'comes after a gap: events are missing before it',
  order: 'is out of order or repeated',
};
const sha256 = (text: string): string => createHash('sha256').update(text).digest('hex');

async function run(args: string[]): Promise<number> {
  const { values, operands } = readOptions(args, { seals: { type: 'boolean' }, against: { type: 'string' } });
  const kept = values.against ? await readSeals(values.against) : new Map<string, ChainSeal>();
  if (!kept) return 2;
  const verifier = chainVerifier(sha256);
  let [events, faults] = [0, 0];
  for await (const source of documentsOf(operands, true)) {
    const problem =
      'unreadable' in source ? { path: [], message: source.unreadable } : firstProblem(eventSchema, source.json);
    if (problem || 'unreadable' in source) {
      complain(`${source.file}:${source.line} ${writePath(problem!.path)}: ${problem!.message}`);
      return 2;
    }
    const event = source.json as ExportedEvent;
    events += 1;
    for (const fault of verifier.next(event)) {
      faults += 1;
      complain(`${source.file}:${source.line} ${fault.record}, event ${fault.seq} ${FAULTS[fault.what]}`);
    }
    const seal = kept.get(`${event.recordKind} ${event.recordId}`);
    if (seal && seal.seq === event.seq && seal.hash === event.hash) kept.delete(seal.record);
  }
  for (const seal of kept.values())
    complain(`${seal.record}, event ${seal.seq} was there when it was sealed and is not, or is another now`);
  if (values.seals) for (const seal of verifier.seals()) await print(JSON.stringify(seal));
  else
    await print(
      `${events} events of ${verifier.seals().length} records, ${faults + kept.size === 0 ? 'intact' : `${faults + kept.size} faults`}`,
    );
  return faults + kept.size === 0 ? 0 : 1;
}

async function readSeals(file: string): Promise<Map<string, ChainSeal> | null> {
  const seals = new Map<string, ChainSeal>();
  for await (const source of documentsOf([file], true)) {
    if ('unreadable' in source) {
      complain(`${source.file}:${source.line} document: ${source.unreadable}`);
      return null;
    }
    const seal = source.json as ChainSeal;
    seals.set(seal.record, seal);
  }
  return seals;
}

export const verifyCommand: Command = { help, run };
