import { useState } from 'react';
import { Dialog } from './Dialog.tsx';
import { KEYS } from './keys.tsx';
import { setSingleKeys, singleKeysOn } from './useKeys.ts';

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
      {Object.values(KEYS).map(({ key, shown, says }) => (
        <div key={key} className="contents">
          <dt>
            <kbd className="kbd kbd-sm">{shown}</kbd>
          </dt>
          <dd>{says}</dd>
        </div>
      ))}
    </dl>
  );
}
