import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import type { TaxCode } from '../../documents/case.schema.ts';
import { toMinor } from '../../numbers/amount.ts';
import { addTax } from './addTax.ts';
import { componentsOf, includedTax } from './taxEntry.ts';

const code = (fields: Partial<TaxCode>): TaxCode => ({ code: 'T', country: 'IE', account: '1410', ...fields });
const plain = code({ rate: '23' });
const component = (id: string, rate: string, on: 'net' | 'running') => ({
  id,
  rate,
  on,
  account: '1410',
  recovery: '100',
});

describe('a price without tax', () => {
  it('becomes the gross that holds its tax, rounded half away from zero', () => {
    expect(addTax('81.31', plain, 'EUR')).toEqual({ code: 'T', gross: '100.01', tax: '18.70' });
    expect(addTax('-81.31', plain, 'EUR')).toEqual({ code: 'T', gross: '-100.01', tax: '-18.70' });
    expect(addTax('1005', code({ rate: '10' }), 'JPY')).toEqual({ code: 'T', gross: '1106', tax: '101' });
    expect(addTax('10.005', code({ rate: '10' }), 'BHD')).toEqual({ code: 'T', gross: '11.006', tax: '1.001' });
  });
  it('adds each component by itself, tax on tax included', () => {
    const two = code({ components: [component('a', '5', 'net'), component('b', '7', 'net')] });
    expect(addTax('10.07', two, 'CAD')).toEqual({ code: 'T', gross: '11.27', tax: '1.20' });
    const running = code({ components: [component('a', '10', 'net'), component('b', '5', 'running')] });
    expect(addTax('100.00', running, 'EUR')).toEqual({ code: 'T', gross: '115.50', tax: '15.50' });
  });
  it('holds no tax where the buyer owes it, and is nothing where it is no amount of the currency', () => {
    expect(addTax('80.00', code({ rate: '23', selfAssessed: true }), 'EUR')).toEqual({
      code: 'T',
      gross: '80.00',
      tax: null,
    });
    expect(addTax('80.005', plain, 'EUR')).toBeNull();
    expect(addTax('eighty', plain, 'EUR')).toBeNull();
  });
  it('gives a tax that the gross holds, to a minor unit for each component', () => {
    const rates = fc.integer({ min: 0, max: 4000 }).map((n) => (n / 100).toFixed(2));
    fc.assert(
      fc.property(fc.bigInt({ min: -(10n ** 9n), max: 10n ** 9n }), rates, (net, rate) => {
        const written = `${net < 0n ? '-' : ''}${String(net < 0n ? -net : net)
          .padStart(3, '0')
          .replace(/(..)$/, '.$1')}`;
        const added = addTax(written, code({ rate }), 'EUR')!;
        const gross = toMinor(added.gross, 'EUR');
        expect(gross - toMinor(added.tax!, 'EUR')).toBe(net);
        const held = includedTax(gross, componentsOf(code({ rate })), toMinor(added.tax!, 'EUR'));
        expect(held.ok && held.off! >= -1n && held.off! <= 1n).toBe(true);
      }),
    );
  });
});
