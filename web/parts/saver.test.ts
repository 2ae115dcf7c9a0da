import { describe, expect, it } from 'vitest';
import { ApiError } from '../api/client.ts';
import { createSaver, type SaverState } from './saver.ts';

interface View {
  revision: number;
  merchant: string;
  note: string;
}

/** A server of one claim with two fields, that can be away, and that somebody else may change. */
function setting() {
  const server = { revision: 1, merchant: 'Inn', note: '' };
  const away = { times: 0 };
  const states: SaverState[] = [];
  const conflicts: { says: string; mine: () => void }[] = [];
  let shown: View = { ...server };
  const saver = createSaver<View>({
    view: shown,
    revisionOf: (v) => v.revision,
    load: async () => ({ ...server }),
    show: (v) => {
      shown = v;
    },
    onState: (s) => states.push(s),
    onConflict: (says, mine) => conflicts.push({ says, mine }),
    wait: async () => undefined,
  });
  const change = (field: 'merchant' | 'note', value: string) => {
    const before = shown[field];
    const done: (string | null)[] = [];
    saver.add({
      says: field,
      stands: (v) => v[field] === before,
      done: (error) => done.push(error && error.message),
      send: async (revision) => {
        if (away.times-- > 0) throw new ApiError(0, { code: 'unreachable', says: 'away' });
        if (value === 'bad') throw new ApiError(400, { code: 'invalid', says: 'no' });
        if (revision !== server.revision) throw new ApiError(409, { code: 'stale', says: 'stale' });
        Object.assign(server, { [field]: value, revision: server.revision + 1 });
        return { ...server };
      },
    });
    return done;
  };
  const settle = () => new Promise((r) => setTimeout(r, 5));
  return { server, away, states, conflicts, change, settle, shown: () => shown };
}

describe('edits of a claim', () => {
  it('are sent one after the other, each for the revision the one before left', async () => {
    const { server, change, settle, states } = setting();
    change('merchant', 'Quay Inn');
    change('note', 'two nights');
    await settle();
    expect(server).toEqual({ revision: 3, merchant: 'Quay Inn', note: 'two nights' });
    expect(states).toEqual(['saving', 'idle']);
  });

  it('are merged by field with what somebody else changed', async () => {
    const { server, change, settle, conflicts, shown } = setting();
    Object.assign(server, { note: 'theirs', revision: 2 });
    change('merchant', 'Quay Inn');
    await settle();
    expect(server).toEqual({ revision: 3, merchant: 'Quay Inn', note: 'theirs' });
    expect([conflicts, shown().note]).toEqual([[], 'theirs']);
  });

  it('ask where both changed the same field, and lose neither', async () => {
    const { server, change, settle, conflicts, shown } = setting();
    Object.assign(server, { merchant: 'theirs', revision: 2 });
    change('merchant', 'mine');
    await settle();
    expect([server.merchant, shown().merchant, conflicts.map((c) => c.says)]).toEqual([
      'theirs',
      'theirs',
      ['merchant'],
    ]);
    conflicts[0]!.mine();
    await settle();
    expect(server.merchant).toBe('mine');
  });

  it('wait while the server is away, and are sent later', async () => {
    const { server, away, change, settle, states } = setting();
    away.times = 3;
    change('merchant', 'Quay Inn');
    change('note', 'later');
    await settle();
    expect([server.merchant, server.note]).toEqual(['Quay Inn', 'later']);
    expect(states).toContain('away');
    expect(states.at(-1)).toBe('idle');
  });

  it('that are refused say why and hold up none', async () => {
    const { server, change, settle } = setting();
    const bad = change('merchant', 'bad');
    const good = change('note', 'fine');
    await settle();
    expect([bad, good, server.note]).toEqual([['no'], [null], 'fine']);
  });
});
