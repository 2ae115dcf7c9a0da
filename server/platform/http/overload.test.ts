import { EventEmitter } from 'node:events';
import { expect, it } from 'vitest';
import { atMost } from './overload.ts';

it('tells who comes when too much is under way when to come back, and lets others in as soon as one is done', () => {
  const gate = atMost(2);
  const come = () => {
    const res = new EventEmitter();
    let says: unknown = 'nothing';
    gate({} as never, res as never, (error?: unknown) => (says = error));
    return { res, says: () => (says as { code?: string } | undefined)?.code ?? 'in' };
  };
  const [first, second, third] = [come(), come(), come()];
  expect([first, second, third].map((c) => c.says())).toEqual(['in', 'in', 'busy']);
  first.res.emit('close');
  expect([come(), come()].map((c) => c.says())).toEqual(['in', 'busy']);
});
