import { createReadStream } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { createInterface } from 'node:readline';
import { text } from 'node:stream/consumers';
import type { Case } from '../core/documents/case.schema.ts';
import { readCase, writePath } from '../core/documents/readCase.ts';
import { findNodeAtLocation, parseTree, type Node } from 'jsonc-parser';

/** One document of a file or of a line of it, or why it could not be read. `line` is where it starts, from 1. */
export type Source = { file: string; line: number } & ({ text: string; json: unknown } | { unreadable: string });

/** The documents of the named files in order; of standard input when none is named. */
export async function* documentsOf(files: string[], jsonl: boolean): AsyncGenerator<Source> {
  for (const name of files.length > 0 ? files : ['-']) {
    const file = name === '-' ? 'standard input' : name;
    try {
      if (jsonl) yield* lines(name, file);
      else yield parse(file, 1, name === '-' ? await text(process.stdin) : await readFile(name, 'utf8'));
    } catch (error) {
      yield { file, line: 1, unreadable: `cannot be read: ${(error as Error).message}` };
    }
  }
}

async function* lines(name: string, file: string): AsyncGenerator<Source> {
  const input = name === '-' ? process.stdin : createReadStream(name);
  let failure: Error | null = null;
  input.on('error', (error: Error) => (failure = error));
  let number = 0;
  for await (const row of createInterface({ input, crlfDelay: Infinity })) {
    number += 1;
    if (row.trim() !== '') yield parse(file, number, row);
  }
  if (failure) throw failure as Error;
}

function parse(file: string, line: number, source: string): Source {
  const content = source.startsWith('\uFEFF') ? source.slice(1) : source;
  try {
    return { file, line, text: content, json: JSON.parse(content) };
  } catch (error) {
    const position = Number(/position (\d+)/.exec((error as Error).message)?.[1] ?? content.length);
    // a document that breaks off does so on its last line, not after it
    const end = Math.min(position, content.trimEnd().length);
    return { file, line: line + newlines(content, end), unreadable: `is not JSON: ${(error as Error).message}` };
  }
}

/** The line of the file on which the value at `path` stands; of its nearest parent when it is missing. */
export function lineOf(source: Source, path: (string | number)[]): number {
  if (!('text' in source)) return source.line;
  const tree = parseTree(source.text);
  if (!tree) return source.line;
  return source.line + newlines(source.text, nearest(tree, path).offset);
}

function nearest(tree: Node, path: (string | number)[]): Node {
  for (let length = path.length; length > 0; length -= 1) {
    const node = findNodeAtLocation(tree, path.slice(0, length));
    if (node) return node;
  }
  return tree;
}

const newlines = (content: string, end: number): number => content.slice(0, end).split('\n').length - 1;

/** The case of a source, or its one line of complaint: FILE:LINE path: what is wrong. */
export function readCaseOf(source: Source): { case: Case } | { error: string } {
  const at = (line: number, what: string) => ({ error: `${source.file}:${line} ${what.replaceAll(/\s+/g, ' ')}` });
  if ('unreadable' in source) return at(source.line, `document: ${source.unreadable}`);
  const read = readCase(source.json);
  if (read.ok) return { case: read.case };
  const { path, message } = read.problems[0]!;
  return at(lineOf(source, path), `${writePath(path)}: ${message}`);
}
