import type { z } from 'zod';
import { useState } from 'react';
import { ApiError } from '../api/client.ts';
import { addedAnswer } from '../../contract/gather.ts';
import { upload } from '../api/upload.ts';

/** A file on its way: how much of it is sent, then what became of it. */
export interface Upload {
  key: number;
  name: string;
  part: number;
  done: boolean;
  /** What is wrong; null while it goes well. */
  says: string | null;
  /** A remark about a file that was accepted. */
  remark: string | null;
}

const TOGETHER = 3;
const WAIT_MS = 2000;
let nextKey = 1;

/** Adds files, a few at a time, each with its progress; what is wrong with one does not hold up the others. */
export function useUploads(onAdded: () => void) {
  const [uploads, setUploads] = useState<Upload[]>([]);
  const change = (key: number, changes: Partial<Upload>) =>
    setUploads((all) => all.map((u) => (u.key === key ? { ...u, ...changes } : u)));

  const one = async (file: File, key: number): Promise<void> => {
    try {
      const { added } = await upload('/receipts', addedAnswer, file, (part) => change(key, { part }));
      change(key, { done: true, part: 1, ...outcomeOf(added) });
      onAdded();
    } catch (error) {
      if (error instanceof ApiError && error.code === 'too-many') {
        await new Promise((resolve) => setTimeout(resolve, WAIT_MS));
        return one(file, key);
      }
      change(key, { done: true, says: error instanceof Error ? error.message : 'The file was not added. Try again.' });
    }
  };

  const add = async (files: Iterable<File>) => {
    const queue = [...files].map((file) => ({ file, key: nextKey++ }));
    const begun = queue.map(({ file, key }) => begin(file, key));
    setUploads((all) => [...all.filter((u) => !u.done || u.says), ...begun]);
    const work = async (): Promise<void> => {
      for (let next = queue.shift(); next; next = queue.shift()) await one(next.file, next.key);
    };
    await Promise.all(Array.from({ length: TOGETHER }, work));
  };
  const dismiss = (key: number) => setUploads((all) => all.filter((u) => u.key !== key));
  return { uploads, add, dismiss };
}

const begin = (file: File, key: number): Upload => ({
  key,
  name: file.name || 'Pasted picture',
  part: 0,
  done: false,
  says: null,
  remark: null,
});

/** What is said of a file that was sent: why something of it was refused, or that it was here before. */
function outcomeOf(added: z.infer<typeof addedAnswer>['added']): Pick<Upload, 'says' | 'remark'> {
  const refused = added.flatMap((a) => (a.ok ? [] : [a.says]));
  const again = added.some((a) => a.ok && !a.fresh);
  return {
    says: refused.length ? refused.join(' ') : null,
    remark: again ? 'You had added this file before; it is in the list once.' : null,
  };
}
