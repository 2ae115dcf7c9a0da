import { useState } from 'react';
import { plans, type Booking, type PlanAnswer } from '../../api/plans.ts';
import { Attachments } from '../../parts/Attachments.tsx';
import { Money } from '../../parts/Money.tsx';
import { BookingForm } from './BookingForm.tsx';
import type { PlanDraft } from './usePlanDraft.ts';

interface BookingsProps {
  view: PlanAnswer;
  draft: PlanDraft;
  onChanged: (next: PlanAnswer) => void;
  onFail: () => void;
}

/** What was offered and taken for an approved plan, with its papers; each becomes a line of the claim. */
export function Bookings({ view, draft, onChanged, onFail }: BookingsProps) {
  const [editing, setEditing] = useState<Booking | 'new' | null>(null);
  const written = view.may.includes('book') && view.plan.claim === null;
  if (view.bookings.length === 0 && !written) return null;
  const done = (next: PlanAnswer) => {
    setEditing(null);
    onChanged(next);
  };
  return (
    <section aria-label="Bookings">
      <div className="mt-6 mb-1 flex items-center gap-3">
        <h2 className="font-semibold">Bookings</h2>
        {written && editing === null && (
          <button type="button" className="btn btn-xs" onClick={() => setEditing('new')}>
            Record a booking
          </button>
        )}
      </div>
      {editing === 'new' && (
        <BookingForm view={view} booking={null} onDone={done} onFail={onFail} onClose={() => setEditing(null)} />
      )}
      <ul className="rounded-box border border-base-300 bg-base-100 empty:hidden">
        {view.bookings.map((booking) => (
          <li key={booking.id} className="border-b border-base-300 px-4 py-2 last:border-b-0">
            {editing !== null && editing !== 'new' && editing.id === booking.id ? (
              <BookingForm
                view={view}
                booking={booking}
                onDone={done}
                onFail={onFail}
                onClose={() => setEditing(null)}
              />
            ) : (
              <BookingRow {...{ view, draft, booking, written }} onEdit={() => setEditing(booking)} />
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

interface BookingRowProps {
  view: PlanAnswer;
  booking: Booking;
  written: boolean;
  draft: PlanDraft;
  onEdit: () => void;
}

function BookingRow({ view, draft, booking, written, onEdit }: BookingRowProps) {
  const { number } = view.plan;
  const run = (send: (revision: number) => Promise<PlanAnswer>) => draft.run('the bookings', send);
  return (
    <>
      <div className="flex flex-wrap items-baseline gap-x-3">
        <span className="font-medium">{booking.what}</span>
        <span className="quiet text-sm">
          {booking.date}
          {booking.estimate && ` · estimate ${booking.estimate}`} · paid {PAID[booking.paidBy]} · recorded by{' '}
          {booking.by}
          {booking.confirmation && ` · ${booking.confirmation}`}
        </span>
        {written && (
          <span className="ml-auto flex gap-3 text-sm">
            <button type="button" className="link" onClick={onEdit}>
              Change
            </button>
            <button
              type="button"
              className="link"
              onClick={() => run((r) => plans.removeBooking(number, r, booking.id))}
            >
              Take off
            </button>
          </span>
        )}
      </div>
      <ul className="mt-1 text-sm">
        {booking.options.map((option, i) => (
          <li key={i} className={`flex justify-between gap-3 ${i === booking.chosen ? 'font-semibold' : 'quiet'}`}>
            <span>
              {option.says}
              {i === booking.chosen && ' (taken)'}
            </span>
            <Money amount={option.amount} currency={option.currency} />
          </li>
        ))}
      </ul>
      <Attachments
        of="the booking"
        attachments={booking.attachments}
        onAdd={written ? (file) => run((r) => plans.attach(number, r, file, booking.id)) : undefined}
        onRemove={written ? ({ id }) => run((r) => plans.detach(number, r, id, booking.id)) : undefined}
      />
    </>
  );
}
const PAID: Record<Booking['paidBy'], string> = { card: 'by company card', central: 'centrally' };
