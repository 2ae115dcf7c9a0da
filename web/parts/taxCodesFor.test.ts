import { describe, expect, it } from 'vitest';
import { onlyTaxCode, taxCodesFor } from './taxCodesFor.ts';

const code = (code: string, country: string, validFrom = '2020-01-01') => ({ code, country, validFrom, validTo: null });
const chart = {
  taxCodes: [code('GB-20', 'GB'), code('IE-13', 'IE'), code('IE-23', 'IE'), code('NO-25', 'NO')],
} as never;

describe('the code of a tax that is added', () => {
  const begun = (country: string | null) =>
    onlyTaxCode(taxCodesFor(chart, { date: '2026-11-02', country }), { country });
  it('is the one of the country of the line, never one of another country, and none where there are several', () => {
    expect([begun('NO'), begun('IE'), begun('FR'), begun(null)]).toEqual(['NO-25', null, null, null]);
  });
  it('has those of the country first to choose from', () => {
    const shown = taxCodesFor(chart, { date: '2026-11-02', country: 'IE' }).map((c) => c.code);
    expect(shown).toEqual(['IE-13', 'IE-23', 'GB-20', 'NO-25']);
  });
});
