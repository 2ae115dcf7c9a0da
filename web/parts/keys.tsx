interface Key {
  /** As the browser names it; "Ctrl+" stands for Ctrl or Cmd. */
  key: string;
  shown: string;
  says: string;
}
const key = (named: string, says: string, shown = named): Key => ({ key: named, shown, says });

/** Every key of the application: what is listened to, hinted at beside buttons and listed in the help comes from here. */
export const KEYS = {
  up: key('ArrowUp', 'one row up', '↑'),
  down: key('ArrowDown', 'one row down', '↓'),
  left: key('ArrowLeft', 'one comparison to the left', '←'),
  right: key('ArrowRight', 'one comparison to the right', '→'),
  open: key('Enter', 'open: a claim, the evidence of a cell, a folded row'),
  next: key('n', 'next cell that is not tied'),
  tick: key(' ', 'tick a comparison as seen', 'Space'),
  waive: key('w', 'waive a comparison, with a reason'),
  approve: key('y', 'approve what is chosen'),
  ask: key('a', 'ask about a line'),
  send: key('e', 'send the questions that are pinned'),
  split: key('s', 'split the line'),
  coding: key('c', 'coding and category of the line'),
  tax: key('t', 'tax of the line'),
  items: key('i', 'items of the line'),
  allowed: key('x', 'allow less of the line'),
  facts: key('f', 'country of the line, who paid it, its rate'),
  choose: key('v', 'choose the line or claim, to do something with several at once'),
  together: key('g', 'clear together the claims that are chosen'),
  why: key('q', 'say why each claim stands where it stands'),
  filter: key('/', 'filter the claims'),
  journal: key('j', 'open or close the journal'),
  person: key('o', 'what the person claimed in a year'),
  changes: key('b', 'what changed since the version before'),
  budgets: key('m', 'what is left of the budgets, and what used them'),
  hold: key('h', 'hold the claim'),
  return: key('r', 'return the claim'),
  previousClaim: key(',', 'previous claim'),
  nextClaim: key('.', 'next claim'),
  clear: key('Ctrl+Enter', 'clear the claim', 'Ctrl ↵'),
  handIn: key('Ctrl+Enter', 'hand in the claim or plan in preparation', 'Ctrl ↵'),
  undo: key('u', 'undo the last change'),
  post: key('p', 'post a cleared claim'),
  goTo: key('Ctrl+k', 'go to a place, claim, person or code', 'Ctrl K'),
  help: key('?', 'show all keys'),
  close: key('Escape', 'close what is open', 'Esc'),
} satisfies Record<string, Key>;
export type KeyAct = keyof typeof KEYS;

/** What each act of a place does when its key is pressed. */
export type KeyActs = Partial<Record<KeyAct, (event: KeyboardEvent) => void>>;

/** The act that a key stands for, if one of these does. */
export const actFor = (acts: KeyActs, named: string): KeyActs[KeyAct] =>
  acts[(Object.keys(acts) as KeyAct[]).find((act) => KEYS[act].key === named)!];

/** The key of an act, beside what does it. */
export const KeyHint = ({ of }: { of: KeyAct }) => (
  <kbd aria-hidden className="hint text-xs font-normal opacity-80">
    {KEYS[of].shown}
  </kbd>
);
