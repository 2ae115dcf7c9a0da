import { describe, expect, it } from 'vitest';
import { line, makeCase, refusal, valid } from '../../../test/fixtures/caseBuilder.ts';
import type { CategoryField } from '../../documents/category.schema.ts';
import type { Line } from '../../documents/case.schema.ts';
import { assess } from '../../assess/assess.ts';

const field = (name: string, more: Partial<CategoryField> = {}): CategoryField => ({
  name,
  label: `The ${name}`,
  need: 'required',
  ...more,
});
function said(of: Partial<Line>, ...fields: CategoryField[]): string[] {
  const plain = line();
  const category = { id: plain.category!, account: '6220', fields };
  const { findings } = assess(valid(makeCase({ lines: [{ ...plain, ...of }], book: { categories: [category] } })));
  return findings.filter((f) => f.code === 'field-missing').map((f) => `${f.severity} ${f.line}: ${f.says}`);
}

describe('what a category asks of its lines', () => {
  it('is a stop where it is required and missing, of facts and of texts alike', () => {
    expect(said({}, field('route'))).toEqual(['stop 1: The route: fill this in.']);
    expect(said({ fields: { route: 'DUB–LIS' } }, field('route'))).toEqual([]);
    expect(said({ fields: { route: '' } }, field('route'))).toHaveLength(1);
    expect(said({}, field('nights'), field('attendees'), field('journey'))).toHaveLength(3);
    expect(said({ nights: 2 }, field('nights'))).toEqual([]);
    expect(said({}, field('route', { need: 'optional' }))).toEqual([]);
  });
  it('names people where they are fewer than a number, also where their count is optional', () => {
    const people = field('attendees', { need: 'optional', namesUnder: 4 });
    expect(said({}, people)).toEqual([]);
    expect(said({ attendees: { count: 4 } }, people)).toEqual([]);
    expect(said({ attendees: { count: 3, names: ['A', 'B'] } }, people)).toEqual([
      'stop 1: Name the people: where they are fewer than 4, each is named.',
    ]);
    expect(said({ attendees: { count: 2, names: ['A', 'B'] } }, people)).toEqual([]);
  });
  it('is asked between the dates of its row alone, and of no private line', () => {
    const plain = line();
    const category = { id: plain.category!, account: '6220', fields: [field('route')], to: '2026-01-01' };
    const now = { id: plain.category!, account: '6220', from: '2026-01-02' };
    const { findings } = assess(valid(makeCase({ lines: [plain], book: { categories: [category, now] } })));
    expect(findings.filter((f) => f.code === 'field-missing')).toEqual([]);
    const mine: Partial<Line> = { paidBy: 'card', personal: true, category: null };
    expect(said(mine, field('route'))).toEqual([]);
  });
  it('cannot be of a name that is none', () => {
    const category = { id: line().category!, account: '6220', fields: [field('a b')] };
    expect(refusal(makeCase({ lines: [line()], book: { categories: [category] } }))).toContain('not a name of a field');
  });
});
