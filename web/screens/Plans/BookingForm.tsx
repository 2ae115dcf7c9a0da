import { useState, type FormEvent } from 'react';
import { useKept, useSending } from '../../parts/kept.ts';
import { plans, type Booking, type PlanAnswer } from '../../api/plans.ts';
import { groupDigits } from '../../../core/numbers/groupDigits.ts';
import { readMoney } from '../../parts/readMoney.ts';
import { RemoveButton } from '../../parts/RemoveButton.tsx';
import { DayField } from '../../parts/days/DayField.tsx';

interface BookingFormProps {
  view: PlanAnswer;
  /** Null: a new one. */
  booking: Booking | null;
  onDone: (next: PlanAnswer) => void;
  onFail: () => void;
  onClose: () => void;
}
interface Offer {
  says: string;
  price: string;
}

/** What is booked, the offers with their prices, and which of them was taken. */
export function BookingForm({ view, booking, onDone, onFail, onClose }: BookingFormProps) {
  const { number, revision, currency, from } = view.plan;
  const place = `booking ${booking?.id ?? 'new'}`;
  const [typed, setTyped, dropTyped] = useKept(place, typedOf(booking, from));
  const [offers, setOffers, dropOffers] = useKept<Offer[]>(`${place} offers`, offersOf(booking));
  const drop = () => {
    dropTyped();
    dropOffers();
  };
  const sending = useSending(drop);
  const [chosen, setChosen] = useState<number | null>(booking?.chosen ?? null);
  const [problem, setProblem] = useState<string | null>(null);
  const set = (fields: Partial<typeof typed>) => setTyped({ ...typed, ...fields });
  const save = async (event: FormEvent) => {
    event.preventDefault();
    const said = readOffers(offers, currency);
    if (!typed.what.trim()) return setProblem('Say what is booked.');
    if (!typed.date) return setProblem('Choose the day it is for.');
    if ('problem' in said) return setProblem(said.problem);
    const { what, date, estimate, paidBy, confirmation } = typed;
    const fields = {
      ...{ what: what.trim(), date, estimate: estimate || null, paidBy, confirmation: confirmation.trim() || null },
      ...{ options: said.options, chosen },
    };
    const work = booking
      ? plans.editBooking(number, revision, booking.id, fields)
      : plans.addBooking(number, revision, fields);
    const done = work.then(onDone, (error: Error) => {
      setProblem(error.message);
      onFail();
    });
    await sending(done);
  };
  return (
    <form
      aria-label={booking ? `Booking ${booking.what}` : 'A new booking'}
      className="mb-2 border-l-4 border-primary bg-base-200 px-4 py-3 text-sm"
      onSubmit={(e) => void save(e)}
    >
      <Facts view={view} typed={typed} onChange={set} />
      <fieldset className="mt-3">
        <legend className="mb-1 font-medium">What was offered, and what was taken</legend>
        {offers.map((offer, i) => (
          <OfferRow
            key={i}
            n={i + 1}
            offer={offer}
            currency={currency}
            taken={chosen === i}
            onTake={() => setChosen(i)}
            onChange={(fields) => setOffers(offers.map((o, k) => (k === i ? { ...o, ...fields } : o)))}
            onRemove={() => {
              setOffers(offers.toSpliced(i, 1));
              setChosen(chosen === null || chosen === i ? null : chosen > i ? chosen - 1 : chosen);
            }}
          />
        ))}
        <button type="button" className="btn btn-xs" onClick={() => setOffers([...offers, { says: '', price: '' }])}>
          Another offer
        </button>
      </fieldset>
      {problem && (
        <p role="alert" className="mt-2 text-error">
          {problem}
        </p>
      )}
      <span className="mt-3 flex gap-2">
        <button className="btn btn-primary btn-sm">Save the booking</button>
        <button type="button" className="btn btn-sm" onClick={() => (drop(), onClose())}>
          Close
        </button>
      </span>
    </form>
  );
}

const typedOf = (booking: Booking | null, from: string | null) => ({
  what: booking?.what ?? '',
  date: booking?.date ?? from ?? '',
  estimate: booking?.estimate ?? '',
  paidBy: booking?.paidBy ?? ('central' as const),
  confirmation: booking?.confirmation ?? '',
});
const offersOf = (booking: Booking | null): Offer[] =>
  booking?.options.map(({ says, amount, currency }) => ({ says, price: `${groupDigits(amount)} ${currency}` })) ?? [
    { says: '', price: '' },
  ];

/** The offers as they are sent, or what is wrong with the first that cannot be. */
function readOffers(offers: readonly Offer[], currency: string): { options: Booking['options'] } | { problem: string } {
  const options: Booking['options'] = [];
  for (const [i, offer] of offers.entries()) {
    const price = readMoney(offer.price, currency);
    if (!offer.says.trim()) return { problem: `Say what offer ${i + 1} is.` };
    if (!price.ok) return { problem: `Offer ${i + 1}: ${price.problem}` };
    options.push({ says: offer.says.trim(), amount: price.amount, currency: price.currency });
  }
  return options.length > 0 ? { options } : { problem: 'Write at least one offer.' };
}

interface FactsProps {
  view: PlanAnswer;
  typed: ReturnType<typeof typedOf>;
  onChange: (fields: Partial<ReturnType<typeof typedOf>>) => void;
}

function Facts({ view, typed, onChange }: FactsProps) {
  return (
    <div className="flex flex-wrap gap-3">
      <Field label="What is booked">
        <input
          className="input input-sm w-56"
          value={typed.what}
          onChange={(e) => onChange({ what: e.target.value })}
        />
      </Field>
      <Field label="For the day">
        <DayField className="input input-sm w-40" value={typed.date} onChange={(day) => onChange({ date: day })} />
      </Field>
      <Field label="For the estimate">
        <select
          className="select select-sm w-44"
          value={typed.estimate}
          onChange={(e) => onChange({ estimate: e.target.value })}
        >
          <option value="">none</option>
          {view.estimates.map((e) => (
            <option key={e.id} value={e.id}>
              {e.id}, {e.description ?? e.category}
            </option>
          ))}
        </select>
      </Field>
      <Field label="Paid">
        <select
          className="select select-sm w-40"
          value={typed.paidBy}
          onChange={(e) => onChange({ paidBy: e.target.value as Booking['paidBy'] })}
        >
          <option value="central">centrally</option>
          <option value="card">by company card</option>
        </select>
      </Field>
      <Field label="Confirmation">
        <input
          className="input input-sm w-40"
          value={typed.confirmation}
          onChange={(e) => onChange({ confirmation: e.target.value })}
        />
      </Field>
    </div>
  );
}

const Field = ({ label, children }: { label: string; children: React.ReactNode }) => (
  <label className="block">
    <span className="quiet block">{label}</span>
    {children}
  </label>
);

interface OfferRowProps {
  n: number;
  offer: Offer;
  currency: string;
  taken: boolean;
  onTake: () => void;
  onChange: (fields: Partial<Offer>) => void;
  onRemove: () => void;
}

const OfferRow = ({ n, offer, currency, taken, onTake, onChange, onRemove }: OfferRowProps) => (
  <div className="mb-1 flex items-center gap-2">
    <input
      type="radio"
      className="radio radio-xs"
      name="offer-taken"
      aria-label={`Offer ${n} was taken`}
      checked={taken}
      onChange={onTake}
    />
    <input
      className="input input-sm min-w-0 flex-1"
      aria-label={`Offer ${n}`}
      placeholder="Who and what"
      value={offer.says}
      onChange={(e) => onChange({ says: e.target.value })}
    />
    <input
      className="input input-sm w-36 text-right tabular-nums"
      aria-label={`Price of offer ${n}`}
      placeholder={`210.00 ${currency}`}
      value={offer.price}
      onChange={(e) => onChange({ price: e.target.value })}
    />
    <RemoveButton what={`offer ${n}`} onRemove={onRemove} />
  </div>
);
