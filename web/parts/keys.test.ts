import { expect, it } from 'vitest';
import { actFor, KEYS } from './keys.tsx';

it('every key stands for one act, and acts only where that is offered', () => {
  // what ends the work on a record is one key, whatever the record is
  const keys = Object.entries(KEYS).flatMap(([act, k]) => (act === 'handIn' ? [] : [k.key]));
  expect(KEYS.handIn.key).toBe(KEYS.clear.key);
  expect(new Set(keys).size).toBe(keys.length);
  const waive = () => undefined;
  expect(actFor({ waive }, 'w')).toBe(waive);
  expect(actFor({ waive }, 'n')).toBeUndefined();
});
