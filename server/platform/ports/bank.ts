import { isIsoDate } from '../../../core/numbers/isoDate.ts';

/** A night of a bank's card feed. */
export interface Delivery {
  id: string;
  /** ISO 8601. */
  day: string;
}
/** The bank that issues the cards: what it has delivered so far, and the documents (camt.053). */
export interface Bank {
  deliveries(): Promise<Delivery[]>;
  /** The whole document; rejects with BankFault when it does not arrive whole, or is larger than any statement is. */
  fetch(id: string): Promise<Buffer>;
}
/** Something between us and the bank failed; the message is for people. */
export class BankFault extends Error {}

const SECONDS = 20;
const MOST_BYTES = 15 * 1024 * 1024;
const MOST_DELIVERIES = 10_000;

/** The bank behind a URL. What it sends is taken from that URL alone: it is not followed to another place. */
export function bankAt(url: string): Bank {
  const get = async (path: string): Promise<Buffer> => {
    try {
      const options = { signal: AbortSignal.timeout(SECONDS * 1000), redirect: 'manual' } as const;
      const response = await fetch(new URL(path, url), options);
      if (!response.ok) throw new BankFault(`The bank answered ${response.status}.`);
      return await wholeOf(response);
    } catch (error) {
      if (error instanceof BankFault) throw error;
      throw new BankFault(
        'The connection to the bank broke off, so nothing of this delivery was taken. It is fetched again.',
      );
    }
  };
  return {
    async deliveries() {
      const list = parsed(await get('/deliveries'));
      if (!Array.isArray(list)) throw new BankFault('The bank gave no list of deliveries.');
      return list.slice(0, MOST_DELIVERIES).filter(isDelivery);
    },
    fetch: (id) => get(`/deliveries/${encodeURIComponent(id)}`),
  };
}

async function wholeOf(response: Response): Promise<Buffer> {
  const parts: Uint8Array[] = [];
  let size = 0;
  for await (const part of response.body ?? []) {
    size += part.byteLength;
    if (size > MOST_BYTES) throw new BankFault('The delivery is larger than 15 MB, so nothing of it was taken.');
    parts.push(part);
  }
  return Buffer.concat(parts);
}

function parsed(bytes: Buffer): unknown {
  try {
    return JSON.parse(bytes.toString('utf8'));
  } catch {
    return null;
  }
}

const isDelivery = (d: Partial<Delivery> | null): d is Delivery =>
  typeof d?.id === 'string' && d.id.length <= 200 && typeof d.day === 'string' && isIsoDate(d.day);
