import { describe, expect, it } from 'vitest';
import { ApiError } from '../api/client.ts';
import { createSaver, type SaverState } from './saver.ts';

interface View {
  revision: number;
  merchant: string;
  note: string;
}

type Fault = 'away' | 'lost' | 'signed out' | 'broken';
const ERRORS: Record<Fault, () => ApiError> = {
  away: () => new ApiError(0, { code: 'unreachable', says: 'away' }),
  lost: () => new ApiError(0, { code: 'unreachable', says: 'lost' }),
  'signed out': () => new ApiError(401, { code: 'not-signed-in', says: 'out' }),
  broken: () => new ApiError(200, { code: 'unreadable', says: 'half an answer' }),
};

/** A server of one claim with two fields, that fails as it is told, and that somebody else may change. */
function setting() {
  const server = { revision: 1, merchant: 'Inn', note: '' };
  const faults: Fault[] = [];
  const done = new Set<string>();
  const states: SaverState[] = [];
  const waits = { times: 0 };
  const conflicts: { says: string; mine: () => void }[] = [];
  const gone: { says: string; anew: () => void }[] = [];
  const kept: [string, number | null][][] = [];
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
    onGone: (says, { run }) => gone.push({ says, anew: run }),
    onQueue: (edits) => kept.push(edits.map((e) => [e.says, e.sentFor ?? null])),
    wait: async () => {
      waits.times += 1;
    },
  });
  /** Writes as the server does: once for the same content, whatever becomes of the answer. */
  const write = async (set: Partial<View>, revision: number): Promise<View> => {
    const fault = faults.shift();
    if (fault && fault !== 'lost' && fault !== 'broken') throw ERRORS[fault]();
    const key = JSON.stringify([set, revision]);
    if (!done.has(key)) {
      if (Object.values(set).includes('bad')) throw new ApiError(400, { code: 'invalid', says: 'no' });
      if (revision !== server.revision) throw new ApiError(409, { code: 'stale', says: 'stale' });
      Object.assign(server, { ...set, revision: server.revision + 1 });
      done.add(key);
    }
    if (fault) throw ERRORS[fault]();
    return { ...server };
  };
  const change = (field: 'merchant' | 'note', value: string, anew?: () => void) => {
    const before = shown[field];
    const said: (string | null)[] = [];
    saver.add({
      says: field,
      of: (v) => v[field],
      over: before,
      ...(anew ? { anew: () => ({ label: 'anew', run: anew }) } : {}),
      done: (error) => said.push(error && error.message),
      send: (revision) => write({ [field]: value }, revision),
    });
    return said;
  };
  const settle = () => new Promise((r) => setTimeout(r, 5));
  return { server, faults, states, waits, conflicts, gone, kept, saver, write, change, settle, shown: () => shown };
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

  it.each([
    ['away', 'away'],
    ['signed out', 'ended'],
  ] as const)('wait while somebody is %s, and are sent later', async (fault, state) => {
    const { server, faults, change, settle, states, waits } = setting();
    faults.push(fault, fault, fault);
    change('merchant', 'Quay Inn');
    change('note', 'later');
    await settle();
    expect([server.merchant, server.note, waits.times]).toEqual(['Quay Inn', 'later', 3]);
    expect(states).toContain(state);
    expect(states.at(-1)).toBe('idle');
  });

  it.each(['lost', 'broken'] as const)('happen once when the answer is %s', async (fault) => {
    const { server, faults, change, settle, saver, shown } = setting();
    faults.push(fault);
    change('merchant', 'Quay Inn');
    // what comes by another way meanwhile does not make it another request
    saver.know({ ...shown(), revision: 2 });
    await settle();
    expect(server).toEqual({ revision: 2, merchant: 'Quay Inn', note: '' });
  });

  it('left behind by a page that was loaded again are sent for the revision they were sent for', async () => {
    const { server, write, saver, shown, settle } = setting();
    const send = (revision: number) => write({ merchant: 'Quay Inn' }, revision);
    await send(1);
    saver.know({ ...server });
    saver.add({ says: 'merchant', of: (v) => v.merchant, over: 'Inn', sentFor: 1, send });
    await settle();
    expect([server.revision, server.merchant, shown().merchant]).toEqual([2, 'Quay Inn', 'Quay Inn']);
  });

  it('left behind by a page that was loaded again do not go over what somebody else changed since', async () => {
    const { server, saver, write, conflicts, settle } = setting();
    const left = (field: 'merchant' | 'note', value: string, over: string) =>
      saver.add({
        says: field,
        of: (v) => v[field],
        over,
        to: value,
        send: (revision) => write({ [field]: value }, revision),
      });
    // the second was typed over what the field does not say any more, while the first is on its way already
    left('note', 'for two', '');
    left('merchant', 'Mine', 'Another inn');
    await settle();
    expect(server).toMatchObject({ note: 'for two', merchant: 'Inn' });
    expect(conflicts.map((c) => c.says)).toEqual(['merchant']);
    conflicts[0]!.mine();
    await settle();
    expect(server.merchant).toBe('Mine');
  });
  it('left behind follow those of one’s own that turn out to be done', async () => {
    const { server, saver, write, conflicts, settle } = setting();
    // the first was done, though its answer was lost: the record says it, and the second was typed before that was known
    await write({ merchant: 'Pub' }, 1);
    const view = { ...server };
    saver.know(view);
    const one = (value: string, sentFor: number | null) =>
      saver.add({
        says: value,
        of: (v) => v.merchant,
        over: 'Inn',
        to: value,
        sentFor,
        send: (revision) => write({ merchant: value }, revision),
      });
    one('Pub', 1);
    one('Hotel', null);
    await settle();
    expect([server.merchant, conflicts]).toEqual(['Hotel', []]);
  });
  it('typed over what is no more are not sent, and an answer that is older than what is known is not shown', async () => {
    const { server, write, saver, conflicts, shown, settle } = setting();
    saver.add({ says: 'note', of: (v) => v.note, over: 'older', send: (r) => write({ note: 'mine' }, r) });
    await settle();
    expect([server.note, conflicts.map((c) => c.says)]).toEqual(['', ['note']]);
    const old = await write({ merchant: 'Quay Inn' }, 1);
    Object.assign(server, { note: 'theirs', revision: 3 });
    saver.know({ ...server });
    saver.add({ says: 'merchant', of: (v) => v.merchant, over: 'Inn', sentFor: 1, send: async () => old });
    await settle();
    expect(shown().revision).not.toBe(old.revision);
  });

  it('that wait behind a repeated one do not go over what others wrote before its answer came', async () => {
    const { server, write, saver, change, settle, conflicts } = setting();
    let lost = true;
    saver.add({
      says: 'merchant',
      of: (v) => v.merchant,
      async send(revision) {
        const answer = await write({ merchant: 'Quay Inn' }, revision);
        if (!lost) return answer;
        lost = false;
        Object.assign(server, { note: 'theirs', revision: server.revision + 1 });
        throw ERRORS.lost();
      },
    });
    change('note', 'mine');
    await settle();
    expect([server.merchant, server.note, conflicts.map((c) => c.says)]).toEqual(['Quay Inn', 'theirs', ['note']]);
  });

  it('that wait behind others do not go over what somebody else changed meanwhile', async () => {
    const { server, change, settle, conflicts } = setting();
    // the first is refused for its revision and brings in what they changed; the second was typed over what is no more
    Object.assign(server, { note: 'theirs', revision: 2 });
    change('merchant', 'Quay Inn');
    change('note', 'mine');
    await settle();
    expect([server.merchant, server.note, conflicts.map((c) => c.says)]).toEqual(['Quay Inn', 'theirs', ['note']]);
  });

  it('of one field, typed one after the other, are all of one’s own', async () => {
    const { server, faults, change, settle, conflicts } = setting();
    faults.push('lost', 'away');
    ['Quay', 'Quay In', 'Quay Inn'].forEach((value) => change('merchant', value));
    await settle();
    expect([server.merchant, conflicts]).toEqual(['Quay Inn', []]);
  });

  it('are kept with the revision they were sent for, until they are dealt with', async () => {
    const { change, settle, kept } = setting();
    change('merchant', 'Quay Inn');
    await settle();
    expect(kept).toEqual([[['merchant', null]], [['merchant', 1]], []]);
  });

  it('that somebody else changed while they wait are told at once, where that is heard by another way', async () => {
    const { server, faults, change, settle, saver, conflicts } = setting();
    faults.push(...Array.from({ length: 40 }, () => 'away' as const));
    change('merchant', 'Quay Inn');
    change('note', 'mine');
    Object.assign(server, { note: 'theirs', revision: 2 });
    saver.know({ ...server });
    await settle();
    expect([server.merchant, server.note, conflicts.map((c) => c.says)]).toEqual(['Quay Inn', 'theirs', ['note']]);
  });

  it('of what is there no more are offered anew', async () => {
    const { server, change, settle, gone, conflicts } = setting();
    Object.assign(server, { merchant: 'removed', revision: 2 });
    let anew = 0;
    change('merchant', 'mine', () => (anew += 1));
    await settle();
    gone[0]!.anew();
    expect([gone.length, conflicts.length, anew, server.merchant]).toEqual([1, 0, 1, 'removed']);
  });

  it('that are refused say why and hold up none', async () => {
    const { server, change, settle } = setting();
    const bad = change('merchant', 'bad');
    const good = change('note', 'fine');
    await settle();
    expect([bad, good, server.note]).toEqual([['no'], [null], 'fine']);
  });
});

describe('an act on the record', () => {
  it('comes after everything that was typed before it', async () => {
    const { server, change, saver, write } = setting();
    change('merchant', 'Quay Inn');
    change('note', 'two nights');
    const seen = await saver.act(async (revision) => {
      expect(server).toMatchObject({ merchant: 'Quay Inn', note: 'two nights' });
      return write({}, revision);
    });
    expect(seen.revision).toBe(4);
  });
  it('holds back what is typed while it runs', async () => {
    const { server, change, saver, write, settle } = setting();
    const act = saver.act(async (revision) => {
      change('note', 'meanwhile');
      await settle();
      expect(server.note).toBe('');
      return write({}, revision);
    });
    await act;
    await settle();
    expect(server).toMatchObject({ note: 'meanwhile', revision: 3 });
  });
  it.each([
    ['away', /does not answer/],
    ['signed out', /session has ended/],
  ] as const)('is not done while somebody is %s and something waits', async (fault, says) => {
    const { server, faults, change, saver, write } = setting();
    faults.push(...Array.from({ length: 50 }, () => fault));
    change('merchant', 'Quay Inn');
    await expect(saver.act((revision) => write({}, revision))).rejects.toThrow(says);
    expect(server.revision).toBe(1);
  });
  it('is not done where something before it was refused, or changed by somebody else; then it can be', async () => {
    const { server, change, saver, write } = setting();
    change('merchant', 'bad');
    await expect(saver.act((revision) => write({}, revision))).rejects.toThrow(/not saved: no/);
    Object.assign(server, { note: 'theirs', revision: 2 });
    change('note', 'mine');
    await expect(saver.act((revision) => write({}, revision))).rejects.toThrow(/not saved/);
    expect(server.revision).toBe(2);
    expect((await saver.act((revision) => write({}, revision))).revision).toBe(3);
  });
});
