import { describe, expect, it } from 'vitest';
import { inspect } from '../../server/platform/outside/reading/inspect.ts';
import { readFile } from '../../server/platform/outside/reading/readFile.ts';
import { makeInvoice } from '../fixtures/eInvoice.ts';

/** E-invoices of EN 16931 made by a general-purpose library, read back field by field by us. */
async function read(bytes: Buffer) {
  const file = await inspect(bytes);
  if (!file.ok || file.kind === 'parcel') throw new Error(file.ok ? 'a parcel' : file.reason);
  return { file, ...(await readFile({ kind: file.kind, type: file.type, bytes, asOf: '2026-03-31' })) };
}

describe.each(['UBL', 'CII', 'Factur-X-EN16931'] as const)('an e-invoice as %s', (format) => {
  it('gives amount, currency, date, seller, tax number and taxes, all sure', async () => {
    const { file, method, reading, remarks } = await read(await makeInvoice(format));
    expect([method, remarks, file.kind]).toEqual(['e-invoice', [], format.startsWith('Factur') ? 'pdf' : 'invoice']);
    expect(reading.amount).toMatchObject({ value: '226.00', sure: 'sure' });
    expect([reading.currency!.value, reading.date!.value, reading.merchant!.value, reading.taxNumber!.value]).toEqual([
      'EUR',
      '2026-03-02',
      'Watt & Meer GmbH',
      'DE123456789',
    ]);
    expect(reading.taxes.map((t) => [t.rate, t.base, t.tax, t.sure])).toEqual([
      ['19', '100.00', '19.00', 'sure'],
      ['7', '100.00', '7.00', 'sure'],
    ]);
    expect(file.pages.length).toBeGreaterThan(0);
  });

  it('whose total does not agree with net and tax is doubtful and says so (BR-CO-15)', async () => {
    const { reading, remarks } = await read(await makeInvoice(format, '227.00'));
    expect(reading.amount).toMatchObject({ value: '227.00', sure: 'doubtful' });
    expect(remarks[0]).toContain('do not add up');
  });
});
