import { describe, expect, it } from 'vitest';
import { kindsShown, matrixRows, nextLoose, sameLoose, shownState } from './cells.ts';

const tie = (line: string, kind: string, state: string) => ({ line, kind, state }) as never;
const mark = (line: string, kind: string, said: string) => ({ line, kind, mark: said }) as never;
const lines = ['1', '2', '3'].map((id) => ({ id })) as never[];
const ties = [
  tie('1', 'receipt', 'tied'),
  tie('1', 'tax', 'off'),
  tie('2', 'receipt', 'open'),
  tie('2', 'tax', 'none'),
  tie('3', 'receipt', 'off'),
];
const finding = (line: string | null, severity: string) => ({ line, severity, code: 'x', says: '' }) as never;

describe('a cell', () => {
  it('shows what the reviewer said of it, where that counts', () => {
    expect(shownState(ties[1], [mark('1', 'tax', 'waived')])).toBe('waived');
    expect(shownState(ties[1], [mark('1', 'tax', 'seen')])).toBe('off');
    expect(shownState(ties[1], [mark('2', 'tax', 'waived')])).toBe('off');
    expect(shownState(ties[1], [mark('1', 'receipt', 'waived')])).toBe('off');
    expect(shownState(undefined, [])).toBe('none');
  });
});

describe('lines where the same is loose', () => {
  const off = (line: string, kind: string, ...facts: string[]) =>
    ({ line, kind, state: 'off', comparisons: facts.map((fact) => ({ fact, state: 'off' })) }) as never;
  const all = [
    off('1', 'receipt', 'merchant'),
    off('2', 'receipt', 'merchant'),
    off('3', 'receipt', 'merchant', 'date'),
    off('4', 'receipt', 'merchant'),
    off('5', 'limit', 'merchant'),
    { line: '6', kind: 'receipt', state: 'tied', comparisons: [{ fact: 'merchant', state: 'tied' }] } as never,
  ];
  it('are those with the same facts off, of which nothing was said', () => {
    expect(sameLoose(all, [], { line: '1', kind: 'receipt' })).toEqual(['2', '4']);
    expect(sameLoose(all, [mark('2', 'receipt', 'waived')], { line: '1', kind: 'receipt' })).toEqual(['4']);
  });
  it('are none for what is dealt with, or tied', () => {
    expect(sameLoose(all, [mark('1', 'receipt', 'waived')], { line: '1', kind: 'receipt' })).toEqual([]);
    expect(sameLoose(all, [], { line: '6', kind: 'receipt' })).toEqual([]);
  });
});

describe('rows made again', () => {
  it('are the very rows they were, but for those of which something changed', () => {
    const memory = new Map();
    const first = matrixRows(lines, ties, [], [], memory);
    const again = matrixRows(lines, [...ties.slice(0, 4), tie('3', 'receipt', 'tied')], [], [], memory);
    expect(again.map((row, i) => row === first[i])).toEqual([true, true, false]);
    expect(again[2]!.loose).toBe(false);
    const marked = matrixRows(lines, ties, [], [mark('1', 'tax', 'waived')], memory);
    expect([marked[0]!.loose, marked[1] === first[1]]).toEqual([false, true]);
    const found = matrixRows(lines, ties, [finding('2', 'stop')], [], memory);
    expect(found[1]!.findings).toHaveLength(1);
  });
});

describe('a row', () => {
  const quiet = (findings: never[], marks: never[] = []) =>
    matrixRows(lines, ties, findings, marks).map((row) => row.quiet);
  it('is quiet once everything on it is dealt with', () => {
    expect(quiet([])).toEqual([false, false, false]);
    expect(quiet([], [mark('1', 'tax', 'waived'), mark('2', 'receipt', 'seen')])).toEqual([true, true, false]);
  });
  it('is not while a finding asks or stops; a note lets it rest', () => {
    const marks = [mark('1', 'tax', 'waived'), mark('2', 'receipt', 'seen'), mark('3', 'receipt', 'waived')];
    expect(quiet([finding('1', 'note'), finding('2', 'ask'), finding('3', 'stop')], marks)).toEqual([
      true,
      false,
      false,
    ]);
    expect(quiet([finding(null, 'stop')], marks)).toEqual([true, true, true]);
  });
});

it('kinds that apply to no line have no column', () => {
  expect(kindsShown(ties)).toEqual(['receipt', 'tax']);
  expect(kindsShown([tie('2', 'tax', 'none')])).toEqual([]);
});

describe('the next cell to deal with', () => {
  const rows = matrixRows(lines, ties, [], []);
  const next = (from: object | null, marks: never[] = []) => nextLoose(rows, ['receipt', 'tax'], marks, from as never);
  it('goes on in reading order and starts over at the end', () => {
    expect(next(null)).toEqual({ line: '1', kind: 'tax' });
    expect(next({ line: '1', kind: 'tax' })).toEqual({ line: '2', kind: 'receipt' });
    expect(next({ line: '3', kind: 'receipt' })).toEqual({ line: '1', kind: 'tax' });
  });
  it('comes back to the same when it is the only one, and is none when all is dealt with', () => {
    const but = [mark('1', 'tax', 'waived'), mark('2', 'receipt', 'waived')];
    expect(next({ line: '3', kind: 'receipt' }, but)).toEqual({ line: '3', kind: 'receipt' });
    expect(next(null, [...but, mark('3', 'receipt', 'waived')])).toBeNull();
  });
});
