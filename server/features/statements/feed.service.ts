import type { Services } from '../../platform/context.ts';
import { BankFault } from '../../platform/ports/bank.ts';
import { Unreadable } from '../../platform/outside/unreadable.ts';
import { importStatements } from './import.service.ts';
import { selectImportedDeliveries, storeFeedCheck } from './statements.queries.ts';

type FeedServices = Pick<Services, 'db' | 'clock' | 'bank' | 'jobs' | 'reader' | 'log'>;

/**
 * Fetches what the bank has delivered and we have not imported, in the order of its days. A delivery that does not
 * arrive whole, or is wrong, is left for the next time and does not hold up the others. What was noted last is
 * kept for the people who look after the feed.
 */
export async function fetchFeed(services: FeedServices): Promise<void> {
  const { db, clock, bank } = services;
  if (!bank) return;
  const faults: string[] = [];
  try {
    const imported = await selectImportedDeliveries(db);
    const waiting = (await bank.deliveries())
      .filter((d) => !imported.has(d.id))
      .sort((a, b) => (a.day < b.day ? -1 : 1));
    for (const delivery of waiting) {
      const fault = await fetchOne(services, delivery.id);
      if (fault) faults.push(`${delivery.day}: ${fault}`);
    }
  } catch (error) {
    if (!(error instanceof BankFault)) throw error;
    faults.push(error.message);
  }
  await storeFeedCheck(db, clock.now(), faults.length ? faults.join(' ') : null);
}

async function fetchOne(services: FeedServices, id: string): Promise<string | null> {
  try {
    const original = await services.bank!.fetch(id);
    const file = await services.reader.statements(original, 'feed');
    if (file.kind === 'table') return 'The delivery is no statement.';
    const { read } = file;
    if (!read.ok) return read.says;
    const document = { source: 'feed' as const, name: id, format: read.format, original, by: null };
    const outcomes = await importStatements(services, document, read.statements);
    return outcomes.find((o) => o.state === 'refused')?.says ?? null;
  } catch (error) {
    if (error instanceof BankFault || error instanceof Unreadable) return error.message;
    // Whatever else is wrong with one delivery holds up no other; the queue's log has the words.
    services.log.error({ delivery: id, error: String(error).slice(0, 500) }, 'a delivery failed');
    return 'It could not be taken. Ask whoever runs this server; the log says why.';
  }
}
