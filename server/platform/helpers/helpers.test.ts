import { readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { afterEach, describe, expect, it } from 'vitest';
import { confine } from './confine.ts';
import { nextToBegin, type Claimant } from './fairQueue.ts';
import { createHelpers, type HelperLimits, type Helpers } from './helpers.ts';

const file = fileURLToPath(new URL('../../../test/fixtures/helperProgram.mjs', import.meta.url));
const open: Helpers[] = [];
afterEach(() => open.splice(0).forEach((helpers) => helpers.close()));

const free = { command: [], missing: [] };
function helpers(limits: Partial<HelperLimits> = {}, megabytes = 400, confinement: ReturnType<typeof confine> = free) {
  const places = { most: 3, mostLong: 1, mostWaiting: 20, ...limits };
  const made = createHelpers({ file, nodeArgs: [], confinement, megabytes }, places);
  open.push(made);
  const ask = (task: string, more: object = {}) =>
    made.ask({ person: 'A', short: true, weight: 1, seconds: 10, task: { task, ...more }, ...more });
  return Object.assign(ask, { close: () => made.close() });
}
const fault = (attempt: Promise<unknown>) =>
  attempt.catch((error: { kind?: string; code?: string }) => error.kind ?? error.code);
/** Processes of the test's program, by number. */
const processes = () =>
  readdirSync('/proc')
    .filter((pid) => /^\d+$/.test(pid) && commandOf(pid).includes('helperProgram.mjs'))
    .map(Number);
function commandOf(pid: string): string {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'latin1');
  } catch {
    return '';
  }
}

describe('a helper', () => {
  it('answers, one task after the other, in the same process', async () => {
    const ask = helpers({ most: 1 });
    expect(await Promise.all([1, 2, 3].map((says) => ask('answer', { says })))).toEqual([1, 2, 3]);
    expect(processes()).toHaveLength(1);
  });
  it('that takes too long, too much memory or comes to an end is ended, and the next task finds another', async () => {
    const ask = helpers({ most: 1 }, 200);
    expect(await fault(ask('wait', { ms: 5000, seconds: 0.3 }))).toBe('time');
    expect(await fault(ask('eat'))).toBe('memory');
    expect(await fault(ask('end'))).toBe('ended');
    expect(await fault(ask('fail'))).toBe('failed');
    expect(await ask('answer', { says: 'still here' })).toBe('still here');
  });
  it('that was killed while it was idle is replaced, also when the message to it is under way', async () => {
    const ask = helpers({ most: 1 });
    await ask('answer');
    for (let i = 0; i < 3; i += 1) {
      process.kill(processes()[0]!, 'SIGKILL');
      if (i === 1) await new Promise((resolve) => setTimeout(resolve, 100));
      expect(await ask('answer', { says: i })).toBe(i);
    }
  });
  it('has no network, no environment, no user of power and writes nothing', async () => {
    const confinement = confine(file);
    const ask = helpers({}, 400, confinement);
    const may = (await ask('whoami')) as { uid: number; env: string[]; net: string; file: string };
    expect(may.env.filter((name) => name !== 'NODE_CHANNEL_SERIALIZATION_MODE' && name !== 'NODE_CHANNEL_FD')).toEqual(
      [],
    );
    if (!confinement.missing.includes('network')) expect(may.net).toBe('ENETUNREACH');
    if (!confinement.missing.includes('user') && process.getuid?.() === 0) expect(may.uid).toBe(65534);
    if (!confinement.missing.includes('file writing')) expect(may.file).not.toBe('wrote');
  });
});

describe('what waits', () => {
  it('of one person never holds up another', async () => {
    const ask = helpers({ most: 3 });
    const done: string[] = [];
    const slow = [1, 2, 3, 4].map((n) => ask('wait', { ms: 700, person: 'A' }).then(() => done.push(`A${n}`)));
    await ask('answer', { person: 'B' }).then(() => done.push('B'));
    await Promise.all(slow);
    expect(done[0]).toBe('B');
  });
  it('is told to come back when there is too much of it', async () => {
    const ask = helpers({ most: 1, mostWaiting: 2 });
    const kept = [1, 2, 3].map(() => ask('wait', { ms: 300, says: 'done' }));
    expect(await fault(ask('answer'))).toBe('busy');
    expect(await Promise.all(kept)).toEqual(['done', 'done', 'done']);
  });
  it('begins by who has least running, then short before long, then small before large', () => {
    const one = (person: string, short = true, weight = 1): Claimant => ({ person, short, weight });
    const places = { most: 4, mostLong: 2 };
    const next = (waiting: Claimant[], running: Claimant[]) => nextToBegin(waiting, running, places);
    expect(next([one('A'), one('B')], [one('A')])).toBe(1);
    expect(next([one('A', false), one('B', true)], [])).toBe(1);
    expect(next([one('A', true, 9), one('B', true, 3)], [])).toBe(1);
    expect(next([one('C', false), one('D')], [one('A', false), one('B', false)])).toBe(1);
    expect(next([one('C', false)], [one('A', false), one('B', false)])).toBe(-1);
    expect(next([one('A')], [one('A'), one('A'), one('A')])).toBe(-1);
    expect(next([one('A'), one('E')], [one('A'), one('A'), one('A')])).toBe(1);
    expect(next([one('E')], [one('A'), one('B'), one('C'), one('D')])).toBe(-1);
    expect(next([], [])).toBe(-1);
  });
});
