import { Command } from 'cmdk';
import { ChevronDown, Star } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState, type KeyboardEvent } from 'react';

export interface Choosable {
  code: string;
  name: string;
  /** What else it can be found by, and is told of it. */
  hint?: string | undefined;
  /** Why it comes before the others. */
  first?: 'kept first' | 'recent' | undefined;
}
interface CodeChoiceProps {
  label: string;
  value: string;
  choices: readonly Choosable[];
  /** What taking none means; where it looks for something to take, what it is for. */
  none: string;
  /** Only finds: nothing is chosen in it, and none cannot be. */
  finds?: boolean;
  autoFocus?: boolean;
  /** Shows names alone: the codes are for machines. */
  byName?: boolean;
  /** Keeps a code before the others, or no longer; without it nobody is offered that. */
  onKeep?: ((code: string, on: boolean) => void) | undefined;
  onChange: (code: string) => void;
}

/** One code of many, found by typing part of the code or of its words; the list is as wide as it needs. */
export function CodeChoice({
  label,
  value,
  choices,
  none,
  finds = false,
  autoFocus = false,
  byName = false,
  onKeep,
  onChange,
}: CodeChoiceProps) {
  // what is looked for; null is closed. Letters that come before the list has the focus count too
  const [typed, setTyped] = useState<string | null>(null);
  const open = typed !== null;
  const chosen = choices.find((c) => c.code === value);
  const take = (code: string) => {
    onChange(code);
    setTyped(null);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const letter = event.key.length === 1 && event.key !== ' ' && !event.ctrlKey && !event.metaKey && !event.altKey;
    if (!letter && event.key !== 'ArrowDown') return;
    event.preventDefault();
    event.stopPropagation();
    setTyped((before) => (before ?? '') + (letter ? event.key : ''));
  };
  return (
    <Popover.Root open={open} onOpenChange={(next) => setTyped(next ? '' : null)}>
      <Popover.Trigger asChild>
        <button
          type="button"
          role="combobox"
          aria-label={label}
          aria-expanded={open}
          aria-controls={open ? `${label}-list` : undefined}
          title={chosen ? (byName ? chosen.name : `${chosen.code} ${chosen.name}`) : none}
          autoFocus={autoFocus}
          onKeyDown={onKeyDown}
          className={`btn btn-xs max-w-40 justify-between gap-1 border-base-300 bg-base-100 font-normal ${value ? 'font-medium' : 'quiet'}`}
        >
          <span className="truncate">{(byName && chosen?.name) || value || none}</span>
          <ChevronDown size={12} className="shrink-0" />
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={4}
          collisionPadding={8}
          className="z-50 w-[26rem] max-w-[94vw] rounded-box border border-base-300 bg-base-100 text-base-content shadow-xl"
        >
          <Choices
            {...{ label, value, choices, none, finds, byName, onKeep }}
            search={typed ?? ''}
            onSearch={setTyped}
            onTake={take}
          />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** Whether code and words hold every word that is typed. */
function holdsAll(code: string, typed: string, words: string[] = []): number {
  const text = [code, ...words].join(' ').toLowerCase();
  return typed
    .toLowerCase()
    .split(/\s+/)
    .every((part) => text.includes(part))
    ? 1
    : 0;
}

interface ChoicesProps extends Pick<
  CodeChoiceProps,
  'label' | 'value' | 'choices' | 'none' | 'finds' | 'byName' | 'onKeep'
> {
  search: string;
  onSearch: (search: string) => void;
  onTake: (code: string) => void;
}

const ITEM = 'flex cursor-pointer items-baseline gap-2 px-3 py-1 data-[selected=true]:bg-base-200';

function Choices({ label, value, choices, none, finds, byName, search, onSearch, onKeep, onTake }: ChoicesProps) {
  const [at, setAt] = useState(value);
  const keepAt = (event: KeyboardEvent) => {
    const chosen = choices.find((c) => c.code === at);
    if (!event.altKey || event.key.toLowerCase() !== 's' || !chosen || !onKeep) return;
    event.preventDefault();
    onKeep(chosen.code, chosen.first !== 'kept first');
  };
  return (
    <Command label={label} value={at} onValueChange={setAt} filter={holdsAll} onKeyDown={keepAt}>
      <Command.Input
        autoFocus
        value={search}
        onValueChange={onSearch}
        placeholder={byName ? 'Words' : 'Code or words'}
        className="input input-sm w-full border-0 border-b"
      />
      <Command.List id={`${label}-list`} className="max-h-64 overflow-auto py-1 text-sm">
        <Command.Empty className="quiet px-3 py-2">No code has these letters.</Command.Empty>
        {!finds && (
          <Command.Item value="~none" keywords={[none]} className={ITEM} onSelect={() => onTake('')}>
            <span className="quiet min-w-0 flex-1">{none}</span>
            <span className="quiet text-xs">where none is chosen</span>
          </Command.Item>
        )}
        {choices.map((c) => (
          <Command.Item
            key={c.code}
            value={c.code}
            keywords={[c.name, c.hint ?? '']}
            className={ITEM}
            onSelect={() => onTake(c.code)}
          >
            {!byName && <span className="font-mono">{c.code}</span>}
            <span className="min-w-0 flex-1">{c.name}</span>
            <span className="quiet text-xs">{[c.first, c.hint].filter(Boolean).join(' · ')}</span>
            {onKeep && <KeepFirst choice={c} onKeep={onKeep} />}
          </Command.Item>
        ))}
      </Command.List>
      {onKeep && <p className="quiet border-t border-base-300 px-3 py-1 text-xs">Alt S keeps a code first</p>}
    </Command>
  );
}

function KeepFirst({
  choice: { code, first },
  onKeep,
}: {
  choice: Choosable;
  onKeep: (code: string, on: boolean) => void;
}) {
  const kept = first === 'kept first';
  return (
    <button
      type="button"
      tabIndex={-1}
      className="self-center"
      aria-label={kept ? `Keep ${code} first no longer` : `Keep ${code} first`}
      onClick={(event) => {
        event.stopPropagation();
        onKeep(code, !kept);
      }}
    >
      <Star size={14} className={kept ? 'fill-current' : 'quiet'} />
    </button>
  );
}
