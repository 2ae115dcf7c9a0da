import { format, parseISO } from 'date-fns';
import { DayPicker } from 'react-day-picker';

export interface CalendarProps {
  /** ISO 8601; empty where none is chosen. */
  value: string;
  min?: string | undefined;
  max?: string | undefined;
  /** The other end of a range this day begins or ends: the days between are marked. */
  other?: string | undefined;
  onPick: (day: string) => void;
}

/** The first day of a week where the reader's language is spoken: 0 for Sunday. */
function firstOfWeek(): 0 | 1 | 6 {
  const locale = new Intl.Locale(navigator.language) as Intl.Locale & { getWeekInfo?: () => { firstDay: number } };
  const first = locale.getWeekInfo?.().firstDay ?? 1;
  return (first % 7) as 0 | 1 | 6;
}

/** One month, by pointer and by arrows; loaded when it is first opened. */
export default function Calendar({ value, min, max, other, onPick }: CalendarProps) {
  const chosen = value ? parseISO(value) : undefined;
  const [from, to] = [value, other ?? ''].sort();
  return (
    <DayPicker
      mode="single"
      autoFocus
      className="react-day-picker"
      weekStartsOn={firstOfWeek()}
      selected={chosen}
      defaultMonth={chosen ?? (other ? parseISO(other) : undefined)}
      disabled={[...(min ? [{ before: parseISO(min) }] : []), ...(max ? [{ after: parseISO(max) }] : [])]}
      modifiers={from && to ? { between: { from: parseISO(from), to: parseISO(to) } } : {}}
      modifiersClassNames={{ between: 'day-between' }}
      onSelect={(day) => day && onPick(format(day, 'yyyy-MM-dd'))}
    />
  );
}
