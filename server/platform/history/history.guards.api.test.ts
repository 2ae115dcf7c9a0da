import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startApi, type TestApi } from '../../../test/fixtures/startApi.ts';
import { canonical } from '../../../core/numbers/canonical.ts';
import { CHAIN_START, eventText } from '../../../core/workflow/eventText.ts';
import type { Db } from '../db/connect.ts';
import type { EventRow } from './history.queries.ts';
import { appendEvent, toChained } from './appendEvent.ts';
import { sha256 } from './sha256.ts';

let api: TestApi;
beforeAll(async () => {
  api = await startApi('history_guards');
});
afterAll(() => api.close());

describe('the history', () => {
  const broken = async (): Promise<number> => {
    const events: EventRow[] = await api.owner('events').orderBy(['record_kind', 'record_id', 'seq']);
    let previous: EventRow | null = null;
    let count = 0;
    for (const event of events) {
      const follows =
        previous?.record_id === event.record_id && previous.record_kind === event.record_kind
          ? previous.hash
          : CHAIN_START;
      if (event.hash !== sha256(eventText(toChained(event))) || event.previous_hash !== follows) count += 1;
      previous = event;
    }
    return count;
  };
  it('is a chain that anyone can compute again, although the database computed it', async () => {
    expect(await broken()).toBe(0);
  });
  it('hashes words in without holding them, so they can be removed', async () => {
    const event = await api
      .owner('events as e')
      .join('event_words as w', 'w.event_id', 'e.id')
      .where('e.kind', 'returned')
      .first();
    expect(event.facts).not.toContain('receipt');
    expect(event.salt).toMatch(/^[0-9a-f]{32}$/);
    expect(event.private_hash).toBe(sha256(event.salt + canonical(event.words)));
    expect(event.private_hash).not.toBe(sha256(canonical(event.words)));
    await api.owner('event_words').where({ event_id: event.event_id }).delete();
    expect(await broken()).toBe(0);
  });
  it('tells of a posting with the hash of its journal', async () => {
    const event = await api.owner('events').where({ kind: 'posted', record_id: 'C-1017' }).first();
    const journal = await api
      .owner('journals')
      .where({ number: JSON.parse(event.facts).journal })
      .first();
    expect(event.about).toBe(journal.hash);
  });
  it('shows a change by somebody who went round the guards', async () => {
    await api.owner.raw('alter table events disable trigger user');
    await api.owner.raw(
      `update events set facts = '{"revision":99}' where id = (select min(id) from events where record_kind = 'claim')`,
    );
    expect(await broken()).toBe(1);
  });
});

describe('words of an event', () => {
  it('are hashed with a salt of their own, so that nobody finds them by guessing', async () => {
    const words = { reason: 'Agreed' };
    const said = async (recordId: string) => {
      const event = {
        recordKind: 'claim',
        recordId,
        at: new Date(),
        actorId: null,
        kind: 'returned',
        facts: {},
        words,
      };
      await api.app.transaction((trx) => appendEvent(trx as unknown as Db, event));
      return api
        .owner('events as e')
        .join('event_words as w', 'w.event_id', 'e.id')
        .where('e.record_id', recordId)
        .first('e.private_hash', 'w.salt');
    };
    const [one, two] = [await said('X-1'), await said('X-2')];
    expect(one.private_hash).not.toBe(two.private_hash);
    expect(one.private_hash).toBe(sha256(one.salt + canonical(words)));
  });
});
