import type { HistoryEvent } from '../api/claims.ts';
import { SAYS, sayEvent, sayMoment, type Sayings } from '../words/sayEvent.ts';

interface HistoryProps {
  events: readonly HistoryEvent[];
  className: string;
  /** What is said of each kind of event; of a claim's without. */
  says?: Sayings;
}

/** What happened to a record, the newest first: who, what, when. */
export function History({ events, className, says = SAYS }: HistoryProps) {
  return (
    <ol className={className}>
      {[...events].reverse().map((event) => (
        <li key={event.seq} className="border-b border-base-300 py-1 last:border-b-0">
          <span className="font-medium">{event.actor ?? 'Ebbet'}</span> {sayEvent(event, says)}{' '}
          <span className="quiet">{sayMoment(event.at)}</span>
        </li>
      ))}
    </ol>
  );
}
