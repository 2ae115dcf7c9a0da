import { describe, expect, it } from 'vitest';
import { randomFrom } from '../../demo/random.ts';
import { ApiError } from '../api/client.ts';
import { createSaver, type SaverState } from './saver.ts';

interface View {
  revision: number;
  merchant: string;
  note: string;
}
const ERRORS = {
  away: () => new ApiError(0, { code: 'unreachable', says: 'away' }),
  lost: () => new ApiError(0, { code: 'unreachable', says: 'lost' }),
  'signed out': () => new ApiError(401, { code: 'not-signed-in', says: 'out' }),
  broken: () => new ApiError(200, { code: 'unreadable', says: 'half an answer' }),
};

/** Two people at one record by a seed: what each types is sent, cut, answered half, heard of by another way, in any order. */
describe('two savers of one record', () => {
  it('put nothing over what its typist had not seen, and lose nothing without a word', async () => {
    for (let seed = 1; seed <= 60; seed += 1) await twoSavers(seed);
  });
});

interface Said {
  who: number;
  field: 'merchant' | 'note';
  value: string;
  /** What its typist had before: what was shown, or typed in the same field by themselves. */
  over: string[];
  /** How many writes its typist had seen. */
  seen: number;
  outcome: 'waits' | 'saved' | 'told';
}

async function twoSavers(seed: number): Promise<void> {
  const random = randomFrom(seed);
  const server: View = { revision: 1, merchant: '', note: '' };
  const done = new Set<string>();
  const writes: Said[] = [];
  const wrong: string[] = [];
  const said: Said[] = [];
  let faulty = true;
  const tick = () => new Promise((wake) => setTimeout(wake, faulty ? random.whole(0, 2) : 0));
  const write = async (one: Said, revision: number): Promise<View> => {
    await tick();
    const fault = faulty ? random.pick(['none', 'none', 'away', 'lost', 'signed out', 'broken'] as const) : 'none';
    if (fault === 'away' || fault === 'signed out') throw ERRORS[fault]();
    const key = JSON.stringify([one.value, revision]);
    if (!done.has(key)) {
      if (revision !== server.revision) throw new ApiError(409, { code: 'stale', says: 'stale' });
      if (!one.over.includes(server[one.field])) wrong.push(`${one.value} goes over ${server[one.field]}`);
      writes.push(one);
      Object.assign(server, { [one.field]: one.value, revision: revision + 1 });
      done.add(key);
    }
    await tick();
    if (fault !== 'none') throw ERRORS[fault]();
    // a write that is repeated is answered with the record as it is by then
    return { ...server };
  };
  const people = [0, 1].map((who) => {
    let shown = { ...server };
    const states: SaverState[] = ['idle'];
    const show = (next: View) => (shown = next);
    const saver = createSaver<View>({
      view: shown,
      revisionOf: (v) => v.revision,
      load: async () => (await tick(), { ...server }),
      show,
      onState: (state) => states.push(state),
      onConflict: () => undefined,
      onGone: () => undefined,
      onQueue: () => undefined,
      wait: async () => void (await tick()),
    });
    const type = (field: 'merchant' | 'note', value: string) => {
      const own = said.filter((s) => s.who === who && s.field === field && s.outcome !== 'told').map((s) => s.value);
      const one: Said = { who, field, value, over: [shown[field], ...own], seen: shown.revision - 1, outcome: 'waits' };
      said.push(one);
      saver.add({
        says: value,
        of: (v) => `${field} ${v[field]}`,
        to: `${field} ${value}`,
        inPlace: true,
        done: (error) => (one.outcome = error ? 'told' : 'saved'),
        send: (revision) => write(one, revision),
      });
    };
    const hear = () => saver.know((shown = { ...server }));
    return { type, hear, isIdle: () => states.at(-1) === 'idle' };
  });
  for (let act = 0; act < 40; act += 1) {
    const person = random.pick(people);
    const what = random.pick(['type', 'type', 'hear', 'wait'] as const);
    if (what === 'type') person.type(random.pick(['merchant', 'note'] as const), `${seed}.${act}`);
    if (what === 'hear') person.hear();
    if (what === 'wait') await tick();
  }
  faulty = false;
  while (!people.every((p) => p.isIdle())) await tick();
  for (const one of said) {
    if (one.outcome === 'waits') wrong.push(`${one.value} waits for ever`);
    if (one.outcome === 'saved' && !writes.includes(one)) wrong.push(`${one.value} is said to be saved`);
    const byOther = writes.slice(one.seen).some((w) => w.who !== one.who && w.field === one.field);
    if (one.outcome === 'told' && !byOther) wrong.push(`${one.value} is asked about for nothing`);
  }
  expect(wrong, `seed ${seed}`).toEqual([]);
}
