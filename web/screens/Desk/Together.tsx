import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { clearing, useClearings } from '../../api/clearing.ts';
import type { QueueRow } from '../../api/desk.ts';
import { failed } from '../../parts/failed.ts';
import { KeyHint } from '../../parts/keys.tsx';
import { useKeys } from '../../parts/useKeys.ts';

interface TogetherProps {
  rows: readonly QueueRow[];
  chosen: ReadonlySet<string>;
  setChosen: (chosen: ReadonlySet<string>) => void;
}

/** Claims with nothing off are chosen here and cleared together; a share of them is drawn for a full look. */
export function Together({ rows, chosen, setChosen }: TogetherProps) {
  const navigate = useNavigate();
  const [busy, setBusy] = useState(false);
  const clean = rows.filter((row) => row.clean && !row.own);
  const picked = clean.filter((row) => chosen.has(row.number));
  const begin = async () => {
    if (picked.length === 0 || busy) return;
    setBusy(true);
    const begun = await clearing.begin(picked.map(({ number, revision }) => ({ number, revision }))).catch(failed);
    setBusy(false);
    if (begun) void navigate(`/desk/together/${begun.run}`);
  };
  useKeys({ together: () => void begin() });
  if (clean.length === 0) return <LastRun className="px-4 py-1.5 text-sm" />;
  return (
    <div
      role="group"
      aria-label="Clear together"
      className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-base-300 bg-base-100 px-4 py-1.5 text-sm"
    >
      <label className="flex items-center gap-1.5">
        <input
          type="checkbox"
          className="checkbox checkbox-sm"
          checked={picked.length === clean.length}
          onChange={(e) => setChosen(new Set(e.target.checked ? clean.map((row) => row.number) : []))}
        />
        {clean.length === 1 ? 'The one listed' : `All ${clean.length} listed`} with nothing off
      </label>
      {picked.length > 0 && (
        <>
          <button type="button" className="btn btn-primary btn-sm" disabled={busy} onClick={() => void begin()}>
            Clear {picked.length === 1 ? 'it' : `these ${picked.length}`} together <KeyHint of="together" />
          </button>
          <span className="quiet">Some of them, at least one, are drawn for a full look and stay in review.</span>
        </>
      )}
      <LastRun className="ml-auto" />
    </div>
  );
}

function LastRun({ className }: { className: string }) {
  const { data } = useClearings();
  const last = data?.runs[0];
  if (!last) return null;
  return (
    <Link className={`link ${className}`} to={`/desk/together/${last.run}`}>
      {last.state === 'done' ? 'Last run' : 'A run goes on'}: {last.cleared} of {last.chosen} cleared
    </Link>
  );
}
