import { expect, it } from 'vitest';
import { readSecrets } from './secrets.ts';

const [A, B] = ['a'.repeat(24), 'b'.repeat(48)];

it('the secrets of sessions are those that are given, the first signs; blanks are none', () => {
  expect(readSecrets(A)).toEqual({ secrets: [A] });
  expect(readSecrets(`  ${B}  ${A} `)).toEqual({ secrets: [B, A] });
});
it('none, and one that can be guessed, is refused with what to do', () => {
  for (const none of [undefined, '', '   '])
    expect(readSecrets(none)).toMatchObject({ says: expect.stringContaining('must be set') });
  for (const short of ['x', ' a b', `${A} short`, 'a'.repeat(23)])
    expect(readSecrets(short)).toMatchObject({ says: expect.stringContaining('shorter than') });
});
