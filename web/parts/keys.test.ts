import { expect, it } from 'vitest';
import { actFor, KEYS } from './keys.tsx';

it('every key stands for one act, and acts only where that is offered', () => {
  const keys = Object.values(KEYS).map((k) => k.key);
  expect(new Set(keys).size).toBe(keys.length);
  const waive = () => undefined;
  expect(actFor({ waive }, 'w')).toBe(waive);
  expect(actFor({ waive }, 'n')).toBeUndefined();
});
