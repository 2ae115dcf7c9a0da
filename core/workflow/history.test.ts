import { describe, expect, it } from 'vitest';
import { canonical } from '../numbers/canonical.ts';
import { CHAIN_START, eventText } from './eventText.ts';
import { chainVerifier, type ExportedEvent } from './verifyChain.ts';

const event = {
  recordKind: 'claim',
  recordId: '7',
  seq: 1,
  at: '2026-03-01T10:00:00.000Z',
  actor: 'P1',
  kind: 'marked',
  facts: { tie: 'rate', line: '1' },
  about: null,
  privateHash: null,
  previousHash: CHAIN_START,
};

describe('the text an event is hashed by', () => {
  it('holds everything the event says, keys in order', () => {
    expect(eventText(event)).toBe(
      [
        'ebbet-event/2',
        CHAIN_START,
        'claim',
        '7',
        '1',
        '2026-03-01T10:00:00.000Z',
        'P1',
        'marked',
        '',
        '',
        '{"line":"1","tie":"rate"}',
      ].join('\n'),
    );
    expect(eventText({ ...event, actor: null })).toContain('Z\n\nmarked');
    for (const [field, value] of Object.entries({
      recordKind: 'x',
      recordId: '8',
      seq: 2,
      at: 'x',
      actor: 'P2',
      kind: 'x',
      facts: {},
      about: 'x',
      privateHash: 'x',
      previousHash: 'x',
    }))
      expect([field, eventText({ ...event, [field]: value })]).not.toEqual([field, eventText(event)]);
  });
  it('is the same whatever order a database gives keys in', () => {
    expect(canonical({ b: [1, { d: null, c: 'é' }], a: undefined })).toBe('{"b":[1,{"c":"é","d":null}]}');
  });
});

describe('walking a chain', () => {
  const hash = (text: string) => `#${text.length}${text.slice(-40)}`;
  const first: ExportedEvent = { format: 'ebbet-event/2', ...event, hash: hash(eventText(event)) };
  const secondBase = { ...event, seq: 2, previousHash: first.hash };
  const second: ExportedEvent = { format: 'ebbet-event/2', ...secondBase, hash: hash(eventText(secondBase)) };
  it('accepts what follows and names what does not', () => {
    const walk = (...events: ExportedEvent[]) => {
      const verifier = chainVerifier(hash);
      return events.flatMap((e) => verifier.next(e).map((f) => `${f.seq} ${f.what}`));
    };
    expect(walk(first, second)).toEqual([]);
    expect(walk(second)).toEqual(['2 gap', '2 previous']);
    expect(walk(first, first)).toEqual(['1 order', '1 previous']);
    expect(walk({ ...first, kind: 'other' })).toEqual(['1 hash']);
  });
});
