import { CalendarDays } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useRef } from 'react';
import { page } from '../page.tsx';
import type { CalendarProps } from './Calendar.tsx';

const Calendar = page<CalendarProps>('Calendar', () => import('./Calendar.tsx'), null);

interface DayPickProps extends CalendarProps {
  open: boolean;
  onOpen: (open: boolean) => void;
}

/** A month to choose a day from, beside a field in which one can be typed; the field opens it by a key. */
export function DayPick({ open, onOpen, onPick, ...shown }: DayPickProps) {
  const button = useRef<HTMLButtonElement>(null);
  const backToField = (event: Event) => {
    event.preventDefault();
    button.current?.parentElement?.querySelector('input')?.focus();
  };
  return (
    <Popover.Root open={open} onOpenChange={onOpen}>
      <Popover.Trigger asChild>
        <button ref={button} type="button" tabIndex={-1} aria-hidden title="Choose the day" className="day-pick">
          <CalendarDays size={14} />
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          data-day-pick
          align="end"
          sideOffset={4}
          collisionPadding={8}
          onCloseAutoFocus={backToField}
          className="z-50 rounded-box border border-base-300 bg-base-100 p-2 text-base-content shadow-xl"
        >
          <Calendar
            {...shown}
            onPick={(day) => {
              onPick(day);
              onOpen(false);
            }}
          />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
