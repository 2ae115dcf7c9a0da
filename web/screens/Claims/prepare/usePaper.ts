import { useEffect, useEffectEvent, useState } from 'react';
import { addedAnswer } from '../../../../contract/gather.ts';
import { useReceipts, type GatheredReceipt } from '../../../api/gather.ts';
import { upload } from '../../../api/upload.ts';
import { failed } from '../../../parts/failed.ts';

export interface Paper {
  /** Sends a photo or a file, and says which receipt it became. */
  add(file: File): void;
  /** What is happening with it, in words; null where nothing is. */
  says: string | null;
}

/**
 * The paper a new line is made from: it is sent, read, and what was read told once. `receipt` is the one there is,
 * null where there is none.
 */
export function usePaper(
  receipt: string | null,
  onAdded: (receipt: string) => void,
  onRead: (receipt: GatheredReceipt) => void,
): Paper {
  const [sending, setSending] = useState(false);
  const { data } = useReceipts(receipt !== null);
  const found = data?.receipts.find((r) => r.id === receipt);
  const tell = useEffectEvent(onRead);
  const isRead = found !== undefined && found.state !== 'waiting';
  useEffect(() => {
    if (isRead) tell(found);
    // once it is read, and not whenever the list is loaded again
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [isRead, receipt]);
  const add = async (file: File) => {
    setSending(true);
    try {
      const { added } = await upload('/receipts', addedAnswer, file, () => undefined);
      const first = added.find((a) => a.ok);
      const refused = added.find((a) => !a.ok);
      if (first) onAdded(first.id);
      else throw new Error(refused?.says ?? 'The file was not added. Try again.');
    } catch (error) {
      failed(error);
    }
    setSending(false);
  };
  return { add: (file) => void add(file), says: sending ? 'is being sent …' : found ? sayOf(found) : null };
}

const sayOf = ({ state, name, problem }: GatheredReceipt): string =>
  state === 'waiting' ? 'is being read …' : state === 'failed' ? (problem ?? 'could not be read') : name;
