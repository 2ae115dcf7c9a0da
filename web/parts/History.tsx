import type { HistoryEvent } from '../api/claims.ts';
import { sayEvent, sayMoment } from '../words/sayEvent.ts';

/** What happened to a record, the newest first: who, what, when. */
export function History({ events, className }: { events: readonly HistoryEvent[]; className: string }) {
  return (
    <ol className={className}>
      {[...events].reverse().map((event) => (
        <li key={event.seq} className="border-b border-base-300 py-1 last:border-b-0">
          <span className="font-medium">{event.actor ?? 'Ebbet'}</span> {sayEvent(event)}{' '}
          <span className="quiet">{sayMoment(event.at)}</span>
        </li>
      ))}
    </ol>
  );
}
