import { useState, type FormEvent } from 'react';
import type { Coding, Split } from '../../core/documents/case.schema.ts';
import { ownCodes, useOwnCodes, type SavedCoding } from '../api/codes.ts';
import { Dialog } from './Dialog.tsx';
import { Entry } from './Entry.tsx';
import { failed } from './failed.ts';
import { toast } from './toast.tsx';

interface SavedCodingsProps {
  label: string;
  /** What can be saved under a name: the coding as it is, perhaps with the shares of a split. */
  coding: Coding;
  split?: Split | null;
  /** Whether a split can be taken here too; without it codings with shares are not offered. */
  splits?: boolean;
  onTake: (saved: SavedCoding) => void;
}

const SAVE = '~save';

/** Codings under a name, one's own and those everybody has: taken over in one choice, or saved from what is here. */
export function SavedCodings({ label, coding, split = null, splits = false, onTake }: SavedCodingsProps) {
  const [saving, setSaving] = useState(false);
  const all = (useOwnCodes().data?.codings ?? []).filter((c) => splits || !c.split);
  const something = Object.keys(coding).length > 0 || split !== null;
  if (all.length === 0 && !something) return null;
  const choose = (value: string) => {
    if (value === SAVE) setSaving(true);
    else onTake(all[Number(value)]!);
  };
  return (
    <>
      <select
        className="select select-xs w-36"
        aria-label={`Saved codings for ${label}`}
        value=""
        onChange={(e) => choose(e.target.value)}
      >
        <option value="">saved codings</option>
        {all.map((c, i) => (
          <option key={`${c.id} ${c.name}`} value={i}>
            {c.name}
          </option>
        ))}
        {something && <option value={SAVE}>Save this one…</option>}
      </select>
      {saving && <SaveCoding {...{ coding, split, all }} onClose={() => setSaving(false)} />}
    </>
  );
}

interface SaveCodingProps {
  coding: Coding;
  split: Split | null;
  all: readonly SavedCoding[];
  onClose: () => void;
}

/** Keeps a coding, perhaps with shares, under a name; and lets go of those that are kept. */
export function SaveCoding({ coding, split, all, onClose }: SaveCodingProps) {
  const [name, setName] = useState('');
  const own = all.filter((c) => c.id !== null);
  const save = async (event: FormEvent) => {
    event.preventDefault();
    try {
      await ownCodes.save({ name, coding, split });
      toast({ text: `Saved as ${name.trim()}` });
      onClose();
    } catch (error) {
      failed(error);
    }
  };
  return (
    <Dialog title="Save this coding" onClose={onClose}>
      <form onSubmit={(e) => void save(e)}>
        <Entry label="Its name" value={name} onChange={setName} />
        <p className="quiet mt-1 text-sm">A name that is there already takes this coding instead.</p>
        <button className="btn btn-primary btn-sm mt-3" disabled={!name.trim()}>
          Save
        </button>
      </form>
      {own.length > 0 && (
        <ul className="mt-4 border-t border-base-300 text-sm">
          {own.map((c) => (
            <li key={c.id} className="flex items-center justify-between py-1">
              {c.name}
              <button type="button" className="link" onClick={() => void ownCodes.forget(c.id!).catch(failed)}>
                Forget
              </button>
            </li>
          ))}
        </ul>
      )}
    </Dialog>
  );
}
