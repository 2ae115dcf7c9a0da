import { useState } from 'react';
import { Dialog } from './Dialog.tsx';
import { setSingleKeys, singleKeysOn } from './useKeys.ts';

const KEYS: [string, string][] = [
  ['↑ ↓ ← →', 'move in lists and in the matrix'],
  ['Enter', 'open: a claim, the evidence of a cell, a folded row'],
  ['n', 'next cell that is not tied'],
  ['Space', 'tick a comparison as seen'],
  ['w', 'waive a comparison, with a reason'],
  ['a', 'ask about a line'],
  ['s', 'split the line'],
  ['c', 'coding and category of the line'],
  ['t', 'tax of the line'],
  ['i', 'items of the line'],
  ['j', 'open or close the journal'],
  ['h', 'hold the claim'],
  ['r', 'return the claim'],
  [', and .', 'previous and next claim'],
  ['Ctrl Enter', 'clear the claim'],
  ['u', 'undo the last change'],
  ['p', 'post a cleared claim'],
  ['Ctrl K', 'go to a place, claim, person or code'],
  ['Esc', 'close what is open'],
];

/** All keys, and the switch for those who do not want single letters to act. */
export function KeyHelp({ onClose }: { onClose: () => void }) {
  return (
    <Dialog title="Keys" onClose={onClose}>
      <KeyList />
      <SingleKeys />
    </Dialog>
  );
}

function SingleKeys() {
  const [on, setOn] = useState(singleKeysOn);
  const change = (next: boolean) => {
    setSingleKeys(next);
    setOn(next);
  };
  return (
    <label className="mt-4 flex items-center gap-2">
      <input type="checkbox" className="checkbox checkbox-sm" checked={on} onChange={(e) => change(e.target.checked)} />
      Single letters act outside of fields
    </label>
  );
}

function KeyList() {
  return (
    <dl className="grid grid-cols-[7rem_1fr] gap-y-1">
      {KEYS.map(([key, what]) => (
        <div key={key} className="contents">
          <dt>
            <kbd className="kbd kbd-sm">{key}</kbd>
          </dt>
          <dd>{what}</dd>
        </div>
      ))}
    </dl>
  );
}
