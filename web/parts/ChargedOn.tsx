import type { Line } from '../../core/documents/case.schema.ts';
import { Money } from './Money.tsx';

interface ChargedOnProps {
  rebill: Line['rebill'];
  /** What is charged on, in the currency of the claim. */
  amount: string | null | undefined;
  currency: string;
}

/** To whom a line is charged on, with how much; nothing where it is not. */
export const ChargedOn = ({ rebill, amount, currency }: ChargedOnProps) =>
  rebill ? (
    <span className="block text-sm">
      Charged on to {rebill.to}
      {rebill.markup && ` with ${rebill.markup} % more`}: <Money amount={amount} currency={currency} />
    </span>
  ) : null;
