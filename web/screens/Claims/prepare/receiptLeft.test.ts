import { describe, expect, it } from 'vitest';
import { line } from '../../../../test/fixtures/caseBuilder.ts';
import type { MakerView } from '../../../api/claims.ts';
import { receiptLeft } from './receiptLeft.ts';

const receipt = (id: string, amount: string | null, currency = 'EUR') => ({ id, total: { amount, currency } });
const viewOf = (receipts: object, lines: object[]) =>
  ({ receipts, document: { lines } }) as unknown as Pick<MakerView, 'receipts' | 'document'>;

describe('what is not yet claimed', () => {
  const [one, two] = [line({ id: '1', amount: '60.00' }), line({ id: '2', amount: '30.00' })];
  it('is what the receipt shows less every line on it', () => {
    const view = viewOf({ '1': receipt('7', '100.00'), '2': receipt('7', '100.00') }, [one, two]);
    expect(receiptLeft(view, one, 6000n)).toEqual({ of: 'receipt', left: 1000n });
    expect(receiptLeft(view, one, 7500n)).toEqual({ of: 'receipt', left: -500n });
  });
  it('does not count lines on another receipt, or in another currency', () => {
    const other = line({ id: '3', amount: '5', currency: 'JPY' });
    const receipts = { '1': receipt('7', '100.00'), '2': receipt('8', '9.00'), '3': receipt('7', '100.00') };
    expect(receiptLeft(viewOf(receipts, [one, two, other]), one, 0n)).toEqual({ of: 'receipt', left: 10000n });
  });
  it('is of the line where no receipt tells it', () => {
    const bare = { of: 'line', left: 1000n };
    expect(receiptLeft(viewOf({}, [one]), one, 5000n)).toEqual(bare);
    expect(receiptLeft(viewOf({ '1': receipt('7', null) }, [one]), one, 5000n)).toEqual(bare);
    expect(receiptLeft(viewOf({ '1': receipt('7', '100', 'JPY') }, [one]), one, 5000n)).toEqual(bare);
  });
});
