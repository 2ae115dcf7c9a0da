import { ArrowLeft, ChevronDown, ChevronRight } from 'lucide-react';
import { Collapsible } from 'radix-ui';
import { useState, type ReactNode } from 'react';
import { Link, useLocation } from 'react-router';
import { keptNames } from '../kept.ts';
import { useAllUnsaved } from '../unsaved.ts';

interface DraftHeadProps {
  back: { to: string; label: string };
  number: string;
  /** What stands beside the number. */
  beside?: ReactNode;
  /** What it is for, typed in place. */
  purpose: ReactNode;
  /** What the folded fields say, in a line; nothing where they say nothing yet. */
  says: string;
  /** The names of the fields that are folded: they open while something in one of them is not saved. */
  fields: readonly string[];
  /** Whether one of them has to be put right: they stay open. */
  wanting?: boolean;
  children: ReactNode;
}

/** The head of a record in preparation: what it is for, and the rest in a line that opens, so that what is in it begins below. */
export function DraftHead(props: DraftHeadProps) {
  const { back, number, beside, purpose, says, fields, wanting = false, children } = props;
  const typed = useTypedIn(fields);
  const [open, setOpen] = useState(says === '');
  // it opens by itself, and never folds under whoever types in it
  if (!open && (typed || wanting)) setOpen(true);
  return (
    <Collapsible.Root open={open} onOpenChange={setOpen}>
      <div className="flex flex-wrap items-center gap-x-2 gap-y-1 pt-3">
        <h1 className="flex shrink-0 items-center gap-2 text-xl font-semibold">
          <Link to={back.to} aria-label={back.label} className="grid size-6 place-items-center">
            <ArrowLeft size={16} />
          </Link>
          <span className="font-mono text-base">{number}</span>
        </h1>
        {beside}
        <span className="cells-open min-w-0 flex-1 max-sm:basis-full">{purpose}</span>
      </div>
      <Collapsible.Trigger className="quiet mt-1 flex min-h-6 w-full items-center gap-1 text-left text-sm hover:underline">
        {open ? <ChevronDown size={14} className="shrink-0" /> : <ChevronRight size={14} className="shrink-0" />}
        <span className="truncate">{says || 'Where, when and coding'}</span>
      </Collapsible.Trigger>
      <Collapsible.Content className="cells-open mt-1">{children}</Collapsible.Content>
    </Collapsible.Root>
  );
}

/** Whether something was typed in one of these fields that is not saved, now or before the page was loaded. */
function useTypedIn(fields: readonly string[]): boolean {
  const { pathname } = useLocation();
  const [before] = useState(() => keptNames(`${pathname} cell `));
  const unsaved = useAllUnsaved();
  const isOf = (name: string) => fields.some((field) => name.includes(field));
  return before.some(isOf) || unsaved.some(({ says }) => isOf(says));
}
