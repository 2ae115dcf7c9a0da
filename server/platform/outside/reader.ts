import { availableParallelism } from 'node:os';
import type { Mapping } from '../../../contract/statements.ts';
import { HelperFault } from '../helpers/helper.ts';
import { nodeProgram } from '../helpers/nodeProgram.ts';
import { createHelpers, type Asked } from '../helpers/helpers.ts';
import type { Task } from './process.ts';
import type { Paper } from './reading/papers.ts';
import type { FileToRead } from './reading/readFile.ts';
import type { FileKind, Inspected, ReadResult } from './reading/reading.types.ts';
import type { RowsRead, StatementFile } from './statements/readStatementFile.ts';
import type { TableOf } from './statements/tableRows.ts';
import { TooSlow, Unreadable } from './unreadable.ts';
import type { Box } from '../../../core/evidence/reading/reading.types.ts';

/** Looks at files from outside in processes of their own. `person` is whose file it is, for a fair share of the processes. */
export interface Reader {
  /** What a file is; refused with a reason, also when it cannot be opened in time or memory. */
  inspect(bytes: Buffer, person: string): Promise<Inspected>;
  /** What a file says; Unreadable when it cannot be read in time or memory. */
  read(file: FileToRead): Promise<ReadResult>;
  /** The address a mail says it is from; null when it says none. */
  sender(bytes: Buffer): Promise<string | null>;
  /** One PDF of several files; Unreadable when they are too large together. */
  combine(papers: Paper[], person: string): Promise<Buffer>;
  /** PDFs of some pages each of one. */
  divide(paper: Pick<Paper, 'bytes' | 'turns'>, parts: number[][], person: string): Promise<Buffer[]>;
  /** Pictures of some places each of one. */
  cut(paper: Pick<Paper, 'bytes' | 'type' | 'turns'>, places: Box[], person: string): Promise<Buffer[]>;
  /** The statements of a file, or what its table looks like; Unreadable when it is neither. */
  statements(bytes: Buffer, person: string): Promise<StatementFile>;
  /** The rows of a table by a mapping. */
  rows(bytes: Buffer, mapping: Omit<Mapping, 'delimiter'>, of: TableOf, person: string): Promise<RowsRead>;
  /** How many files are read at once. */
  readonly atOnce: number;
  /** How many files wait, and how many are looked at now. */
  load(): { waiting: number; running: number };
  /** What this machine does not let be taken away from the processes; empty when they are confined whole. */
  readonly unconfined: readonly string[];
  close(): void;
}
export interface ReaderLimits {
  inspectSeconds: number;
  readSeconds: number;
  /** Megabytes that one process may hold. */
  megabytes: number;
  mostWaiting: number;
  /** Languages besides those of Latin letters that pictures are read in. */
  languages: readonly string[];
}
export const usualReaderLimits: ReaderLimits = {
  inspectSeconds: 45,
  readSeconds: 90,
  megabytes: 1400,
  mostWaiting: 200,
  languages: ['jpn'],
};

/** What its owner can do about a file that cannot be opened. */
const ADVICE: Record<FileKind | 'file', string> = {
  picture: 'take the picture again, of one paper alone and with fewer dots',
  pdf: 'print it to a new PDF or take a picture of it',
  invoice: 'ask for it as a PDF',
  mail: 'print it to a PDF',
  file: 'print a PDF to a new one, or take a picture again with fewer dots',
};
const HEAP_MEGABYTES = 640;

export function createReader(limits: ReaderLimits = usualReaderLimits): Reader {
  const source = new URL('./process.ts', import.meta.url);
  const program = { ...nodeProgram(source, 'reader', HEAP_MEGABYTES), megabytes: limits.megabytes };
  const atOnce = Math.max(1, availableParallelism());
  const places = { most: atOnce + 2, mostLong: atOnce, mostWaiting: limits.mostWaiting };
  const helpers = createHelpers(program, places);
  const ask = async <T>(task: Task, how: Omit<Asked, 'task' | 'weight'>): Promise<T> => {
    try {
      return (await helpers.ask({ ...how, task, weight: weightOf(task) })) as T;
    } catch (error) {
      throw error instanceof HelperFault ? unreadable(error, ADVICE[kindOf(task)]) : error;
    }
  };
  const short = (person: string) => ({ person, short: true, seconds: limits.inspectSeconds });
  return {
    inspect: (bytes, person) =>
      ask<Inspected>({ task: 'inspect', bytes }, short(person)).catch((error: unknown) => {
        if (error instanceof Unreadable) return { ok: false, reason: error.message };
        throw error;
      }),
    read: (file) => {
      const seconds = limits.readSeconds;
      return ask(
        { task: 'read', ...file, seconds, languages: limits.languages },
        { person: 'reading', short: false, seconds },
      );
    },
    sender: (bytes) => ask({ task: 'sender', bytes }, short('mail')),
    combine: async (papers, person) => Buffer.from(await ask<Uint8Array>({ task: 'combine', papers }, short(person))),
    divide: async (paper, parts, person) =>
      (await ask<Uint8Array[]>({ task: 'divide', ...paper, parts }, short(person))).map((made) => Buffer.from(made)),
    cut: async ({ bytes, type, turns }, places, person) =>
      (await ask<Uint8Array[]>({ task: 'cut', bytes, type, turns, places }, short(person))).map((made) =>
        Buffer.from(made),
      ),
    statements: (bytes, person) => ask({ task: 'statements', bytes }, short(person)),
    rows: (bytes, mapping, of, person) => ask({ task: 'rows', bytes, mapping, of }, short(person)),
    atOnce,
    unconfined: program.confinement.missing,
    load: () => helpers.load(),
    close: () => helpers.close(),
  };
}

const weightOf = (task: Task): number =>
  task.task === 'combine' ? task.papers.reduce((a, p) => a + p.bytes.byteLength, 0) : task.bytes.byteLength;

const kindOf = (task: Task): FileKind | 'file' => {
  if (task.task === 'read') return task.kind;
  return 'bytes' in task && Buffer.from(task.bytes.subarray(0, 4)).toString('latin1') === '%PDF' ? 'pdf' : 'file';
};

function unreadable({ kind, message }: HelperFault, advice: string): Unreadable {
  switch (kind) {
    case 'time':
      return new TooSlow(`it takes too long to open; ${advice}`);
    case 'memory':
      return new Unreadable(`it takes too much memory to open; ${advice}`);
    case 'ended':
      return new Unreadable(`the program that opens files came to an end over it; ${advice}`);
    case 'failed':
      return new Unreadable(message);
    default:
      return kind satisfies never;
  }
}
