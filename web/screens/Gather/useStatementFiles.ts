import { useState } from 'react';
import { fileAnswer } from '../../../contract/statements.ts';
import type { FileAnswer, Mapping } from '../../api/gather.ts';
import { upload } from '../../api/upload.ts';
import { sayOutcome } from './sayOutcome.ts';
import type { Upload } from '../../parts/useUploads.ts';

export type Table = Extract<FileAnswer, { kind: 'table' }>;
export type Rehearsal = Extract<FileAnswer, { kind: 'rehearsed' }>;
interface Options {
  card?: string;
  mapping?: Mapping;
  rehearse?: boolean;
}
/** A table whose columns are asked for, and what its rows would become by the last answer. */
export interface Asked {
  file: File;
  answer: Table;
  rehearsal: Rehearsal | null;
}
let nextKey = 1;

/** Statement files on their way: how far each is, what became of it, and the table whose columns are asked for. */
export function useStatementFiles(onImported: () => void) {
  const [uploads, setUploads] = useState<Upload[]>([]);
  const [table, setTable] = useState<Asked | null>(null);
  const change = (key: number, changes: Partial<Upload>) =>
    setUploads((all) => all.map((u) => (u.key === key ? { ...u, ...changes } : u)));
  const begin = (name: string): number => {
    const key = nextKey++;
    const upload = { key, name, part: 0, done: false, says: null, remark: null };
    setUploads((all) => [...all.filter((u) => u.says || !u.done), upload]);
    return key;
  };
  const one = async (file: File, options: Options) => {
    const key = begin(file.name);
    try {
      const answer = await upload('/statements', fileAnswer, file, (part) => change(key, { part }), options);
      setTable((asked) => nextAsked(asked, file, answer));
      change(key, { done: true, part: 1, ...sayOutcome(answer) });
    } catch (failure) {
      change(key, { done: true, says: failure instanceof Error ? failure.message : 'The file was not read.' });
    }
    onImported();
  };
  const dismiss = (key: number) => setUploads((all) => all.filter((u) => u.key !== key));
  return { uploads, table, setTable, one, dismiss };
}

function nextAsked(asked: Asked | null, file: File, answer: FileAnswer): Asked | null {
  if (answer.kind === 'table') return { file, answer, rehearsal: null };
  return answer.kind === 'rehearsed' && asked ? { ...asked, rehearsal: answer } : null;
}
