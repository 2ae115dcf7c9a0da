import { describe, expect, it } from 'vitest';
import { line, makeCase, valid } from '../../test/fixtures/caseBuilder.ts';
import { NO_EVIDENCE } from '../../core/evidence/comparisons/tie.types.ts';
import { previewCase } from '../../core/evidence/comparisons/previewCase.ts';
import { reviewCase } from '../../core/evidence/comparisons/reviewCase.ts';
import { fromPatch, toPatch } from './patch.ts';

const tax = [{ code: 'IE-23' }];
const lines = Array.from({ length: 40 }, (_, i) => line({ id: `${i + 1}`, amount: '10.01', tax }));
const document = valid(makeCase({ lines }));
const percent = (value: string) => ({
  by: 'percent' as const,
  shares: [
    { coding: {} as Record<string, string>, value },
    { coding: { fund: '20' }, value: 'rest' },
  ],
});
const typed = (value: string, at = 4) => [{ ...lines[at]!, split: percent(value) }];

describe('a preview sent as what changed', () => {
  it('is the preview again, one after the other, also of other lines and back', () => {
    const preview = previewCase(document, NO_EVIDENCE);
    let [there, here]: (Parameters<typeof toPatch>[0] | null)[] = [null, null];
    for (const change of [
      typed('30'),
      typed('31'),
      typed('31', 20),
      [lines[20]!],
      [...typed('9', 1), ...typed('8', 39)],
    ]) {
      const now = preview.withLines(change);
      const patch = structuredClone(toPatch(there!, now));
      const arrived = fromPatch(here!, patch);
      expect(arrived).toEqual(now);
      const whole = {
        ...document,
        claim: { ...document.claim, lines: lines.map((l) => change.find((c) => c.id === l.id) ?? l) },
      };
      expect(arrived).toMatchObject(reviewCase(whole, NO_EVIDENCE));
      if (!now.ok || !arrived.ok) throw new Error('it is readable');
      [there, here] = [now, arrived];
    }
  });
  it('carries of a long claim what belongs to the line that is typed, and leaves the rest as it was', () => {
    const preview = previewCase(document, NO_EVIDENCE);
    const [first, second] = [preview.withLines(typed('30')), preview.withLines(typed('31'))];
    if (!first.ok || !second.ok) throw new Error('it is readable');
    const patch = toPatch(first, second);
    if (!patch.ok) throw new Error('it is readable');
    expect(patch.changes.lines.put.map((l) => l.id)).toEqual(['5']);
    expect(patch.changes.ties.put).toEqual([]);
    expect(new Set(patch.changes.journal.put.map((r) => r.line))).toEqual(new Set(['5']));
    const arrived = fromPatch(first, patch);
    expect(arrived.ok && arrived.ties[0]).toBe(first.ties[0]);
  });
  it('says what cannot be read, and goes on from the last that could', () => {
    const preview = previewCase(document, NO_EVIDENCE);
    const first = preview.withLines(typed('30'));
    const wrong = preview.withLines([{ ...lines[4]!, amount: '1.234' }]);
    expect(fromPatch(first.ok ? first : null, toPatch(first.ok ? first : null, wrong))).toEqual(wrong);
  });
});
