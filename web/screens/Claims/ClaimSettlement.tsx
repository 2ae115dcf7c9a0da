import type { MakerView } from '../../api/claims.ts';
import { Money } from '../../parts/Money.tsx';
import { groupDigits } from '../../../core/numbers/groupDigits.ts';

interface SettlementProps {
  view: MakerView;
  inRow?: boolean;
}
const IN_ROW = 'flex flex-wrap items-baseline gap-x-3';

/** What will be paid as a sum that can be read aloud; in one row the parts of it stand before the sum, as far as there is room. */
export function ClaimSettlement({ view: { settlement, document, declined }, inRow = false }: SettlementProps) {
  const rows: [string, string | null][] = [
    ['Claimed', settlement.claimed],
    ['− company-paid', settlement.companyPaid],
    ['− private', settlement.private],
    ['− advances', settlement.advances],
  ];
  const owes = settlement.toPay?.startsWith('-');
  return (
    <dl aria-label="Settlement" className={inRow ? IN_ROW : 'grid grid-cols-[1fr_auto] content-start'}>
      {rows.map(([name, amount]) => (
        <div key={name} className={inRow ? 'quiet flex gap-x-1.5 text-sm max-md:hidden' : 'contents'}>
          <dt className="quiet">{name}</dt>
          <dd className="money">{amount === null ? '–' : groupDigits(amount)}</dd>
        </div>
      ))}
      <dt className={inRow ? 'font-semibold' : 'border-t border-base-300 font-semibold'}>
        {owes ? 'You give back' : 'To pay'}
      </dt>
      <dd className={inRow ? '' : 'border-t border-base-300 text-right'}>
        <Money amount={settlement.toPay?.replace('-', '') ?? null} currency={settlement.currency} strong />
      </dd>
      {!inRow
        && notAllowedOf(document.lines).map(({ line, amount, currency, isPrivate }, i) => (
          <dd key={`${line} ${i}`} className="quiet col-span-2 text-sm">
            Line {line}: {groupDigits(amount)} {currency}{' '}
            {declined.some((d) => d.line === line) ? 'declined' : 'not allowed'},{' '}
            {isPrivate ? 'private since the card paid it' : 'left out'}
          </dd>
        ))}
    </dl>
  );
}

/** What is not allowed of the lines, declined or cut, with what becomes of it. */
const notAllowedOf = (lines: MakerView['document']['lines']) =>
  lines.flatMap(({ id: line, currency, paidBy, cut, items }) =>
    [cut, ...(items ?? []).map((i) => i.cut)].flatMap((one) =>
      one ? [{ line, amount: one.amount, currency, isPrivate: paidBy === 'card' }] : [],
    ),
  );
