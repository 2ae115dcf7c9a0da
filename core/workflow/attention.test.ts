import { describe, expect, it } from 'vitest';
import { attentionOf, type Attended } from './attention.ts';

const TODAY = '2026-11-27';
const claim = (fields: Partial<Attended> = {}): Attended => ({
  stops: 0,
  ties: { receipt: 'tied', tax: 'none' },
  atRisk: '0.00',
  ledgerCurrency: 'EUR',
  submittedOn: TODAY,
  holdUntil: null,
  waiting: 0,
  answered: 0,
  version: 1,
  earlier: 3,
  drawn: false,
  ...fields,
});
const says = (fields: Partial<Attended>) => attentionOf(claim(fields), TODAY);

describe('why a claim stands where it stands', () => {
  it('is nothing where nothing matters', () => expect(says({})).toEqual([]));
  it('is said of everything that matters, what weighs most first, in the number there is', () => {
    expect(says({ stops: 1, submittedOn: '2026-11-07', atRisk: '12.00' })).toEqual([
      '1 stop has to be put right',
      '12.00 EUR at risk',
      '20 days since it was submitted',
    ]);
    expect(says({ stops: 2, answered: 1 })).toEqual(['2 stops have to be put right', '1 question is answered']);
    expect(says({ ties: { tax: 'off', limit: 'off', card: 'open', rate: 'waived' } })).toEqual([
      'tax, limit not in agreement',
      'card to be looked at',
    ]);
    expect(says({ version: 2, earlier: 1, drawn: true })).toEqual([
      'drawn for a full look',
      'came back as version 2',
      'second claim of this person',
    ]);
    expect(says({ submittedOn: '2026-11-14' })).toEqual([]);
  });
  it('tells a hold from one whose day has come, and an answer from one still to come', () => {
    expect(says({ holdUntil: '2026-11-28' })).toEqual(['on hold until 2026-11-28']);
    expect(says({ holdUntil: TODAY })).toEqual([`its hold ended on ${TODAY}`]);
    expect(says({ waiting: 1, answered: 2 })).toEqual(['waits for 1 answer']);
  });
});
