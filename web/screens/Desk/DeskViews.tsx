import { useState } from 'react';
import { useViews, views, type DeskView } from '../../api/desk.ts';
import { failed } from '../../parts/failed.ts';
import { RemoveButton } from '../../parts/RemoveButton.tsx';
import { toast } from '../../parts/toast.tsx';

/** Filters under a name, one’s own and those others share; and keeping the one that is shown. */
export function DeskViews({ query, onPick }: { query: string; onPick: (query: string) => void }) {
  const { data, mutate } = useViews();
  const [naming, setNaming] = useState(false);
  const all = data?.views ?? [];
  const save = async (name: string, shared: boolean) => {
    const answer = await views.save({ name, shared, query }).catch(failed);
    if (!answer) return;
    void mutate(answer, { revalidate: false });
    setNaming(false);
    toast({ text: `“${name}” is kept` });
  };
  const remove = async (view: DeskView) => {
    const answer = await views.remove(view.id).catch(failed);
    if (answer) void mutate(answer, { revalidate: false });
  };
  if (all.length === 0 && query === '') return null;
  return (
    <div
      role="group"
      aria-label="Kept filters"
      className="flex flex-wrap items-center gap-x-3 gap-y-1 px-4 py-1.5 text-sm"
    >
      {all.map((view) => (
        <span key={view.id} className="flex items-center">
          <button
            type="button"
            aria-pressed={view.query === query}
            title={view.own ? (view.shared ? 'Yours, shared' : 'Yours') : `Shared by ${view.owner}`}
            className={view.query === query ? 'font-semibold underline underline-offset-4' : 'link'}
            onClick={() => onPick(view.query)}
          >
            {view.name}
          </button>
          {view.own && view.query === query && <RemoveButton what={view.name} onRemove={() => void remove(view)} />}
        </span>
      ))}
      {naming ? (
        <NameForm onSave={(name, shared) => void save(name, shared)} onClose={() => setNaming(false)} />
      ) : (
        query !== '' && (
          <button type="button" className="quiet link" onClick={() => setNaming(true)}>
            Keep this filter…
          </button>
        )
      )}
    </div>
  );
}

function NameForm({ onSave, onClose }: { onSave: (name: string, shared: boolean) => void; onClose: () => void }) {
  const [name, setName] = useState('');
  const [shared, setShared] = useState(false);
  return (
    <form
      className="flex items-center gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (name.trim()) onSave(name.trim(), shared);
      }}
    >
      <input
        className="input input-sm w-44"
        aria-label="Name of the filter"
        placeholder="Name"
        autoFocus
        maxLength={60}
        value={name}
        onChange={(e) => setName(e.target.value)}
      />
      <label className="flex items-center gap-1.5">
        <input
          type="checkbox"
          className="checkbox checkbox-xs"
          checked={shared}
          onChange={(e) => setShared(e.target.checked)}
        />
        for everybody
      </label>
      <button className="btn btn-primary btn-xs" disabled={!name.trim()}>
        Keep
      </button>
      <button type="button" className="btn btn-xs" onClick={onClose}>
        Cancel
      </button>
    </form>
  );
}
