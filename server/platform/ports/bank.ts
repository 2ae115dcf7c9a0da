/** A night of a bank's card feed. */
export interface Delivery {
  id: string;
  /** ISO 8601. */
  day: string;
}
/** The bank that issues the cards: what it has delivered so far, and the documents (camt.053). */
export interface Bank {
  deliveries(): Promise<Delivery[]>;
  /** The whole document; rejects with BankFault when it does not arrive whole. */
  fetch(id: string): Promise<string>;
}
/** Something between us and the bank failed; the message is for people. */
export class BankFault extends Error {}

const SECONDS = 20;

/** The bank behind a URL. */
export function bankAt(url: string): Bank {
  const get = async (path: string): Promise<string> => {
    try {
      const response = await fetch(new URL(path, url), { signal: AbortSignal.timeout(SECONDS * 1000) });
      if (!response.ok) throw new BankFault(`The bank answered ${response.status}.`);
      return await response.text();
    } catch (error) {
      if (error instanceof BankFault) throw error;
      throw new BankFault(
        'The connection to the bank broke off, so nothing of this delivery was taken. It is fetched again.',
      );
    }
  };
  return {
    async deliveries() {
      const list: unknown = JSON.parse(await get('/deliveries'));
      if (!Array.isArray(list)) throw new BankFault('The bank gave no list of deliveries.');
      return list.filter((d): d is Delivery => typeof d?.id === 'string' && typeof d?.day === 'string');
    },
    fetch: (id) => get(`/deliveries/${encodeURIComponent(id)}`),
  };
}
