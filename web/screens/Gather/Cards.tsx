import { Link } from 'react-router';
import { useCards, type CardView } from '../../api/gather.ts';
import { Empty, Loading, Trouble } from '../../parts/Notices.tsx';

/** Cards and their months: a holder's own, all of them for finance. */
export function Cards() {
  const { data, error, mutate } = useCards();
  if (!data) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="rows" />;
  if (data.cards.length === 0)
    return (
      <Empty title="No cards">A company or purchasing card that you hold, and each of its months, would be here.</Empty>
    );
  return (
    <div className="grid flex-1 content-start gap-3 p-3 sm:p-4 md:grid-cols-2 xl:grid-cols-3">
      <h1 className="sr-only">Cards by month</h1>
      {data.cards.map((card) => (
        <CardMonths key={card.id} card={card} />
      ))}
    </div>
  );
}

function CardMonths({ card }: { card: CardView }) {
  return (
    <section className="rounded-box border border-base-300 bg-base-100 p-4">
      <h2 className="font-semibold">
        {card.label} <span className="font-mono text-sm font-normal">{card.id}</span>
      </h2>
      <p className="quiet text-sm">
        {card.holder} ·{' '}
        {card.kind === 'purchasing' ? 'reconciled by statement, nothing due to the holder' : 'charges go on claims'} ·{' '}
        {card.currency}
        {card.closesOn !== null && ` · closes on day ${card.closesOn}`}
      </p>
      <ul className="mt-2">
        {card.months.map((m) => (
          <li key={m.month} className="border-t border-base-300">
            <Link to={`/gather/cards/${card.id}/${m.month}`} className="flex justify-between py-1 hover:bg-base-200">
              <span>{m.month}</span>
              <span className="quiet text-sm">
                {m.charges} {m.charges === 1 ? 'charge' : 'charges'} · {m.closedBy ? `closed by ${m.closedBy}` : 'open'}
              </span>
            </Link>
          </li>
        ))}
        {card.months.length === 0 && <li className="quiet text-sm">No charges yet.</li>}
      </ul>
    </section>
  );
}
