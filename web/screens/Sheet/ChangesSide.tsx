import { useState } from 'react';
import { useVersion } from '../../api/beside.ts';
import type { ClaimView } from '../../api/claims.ts';
import { Loading, Trouble } from '../../parts/Notices.tsx';
import { changesSince, sinceOf, type LineChange } from '../../words/compareVersions.ts';

interface ChangesProps {
  view: ClaimView;
  /** The version this person looked at before; null when they did not. */
  before: number | null;
  onLine: (line: string) => void;
}

/** What changed since an earlier version, old and new beside each other: since the one last looked at, else the last one. */
export function ChangesSide({ view, before, onLine }: ChangesProps) {
  const { number, version } = view.claim;
  const [chosen, setChosen] = useState<number | null>(null);
  const since = sinceOf(chosen, before, version);
  const earlier = Array.from({ length: version - 1 }, (_, i) => i + 1);
  return (
    <section aria-label="What changed" className="p-4 text-sm">
      <label className="flex items-center gap-2">
        Since
        <select className="select select-sm w-64" value={since} onChange={(e) => setChosen(Number(e.target.value))}>
          {earlier.map((v) => (
            <option key={v} value={v}>
              version {v}
              {v === before ? ', which you looked at' : ''}
            </option>
          ))}
        </select>
      </label>
      <Changes key={since} {...{ view, number, since, onLine }} />
    </section>
  );
}

type ChangesOf = Pick<ChangesProps, 'view' | 'onLine'> & { number: string; since: number };

function Changes({ view, number, since, onLine }: ChangesOf) {
  const { data, error, mutate } = useVersion(number, since);
  if (!data) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="rows" />;
  const changes = changesSince(data, view);
  if (changes.length === 0) return <p className="quiet mt-3">Nothing changed since version {since}.</p>;
  return (
    <ul className="mt-3 grid gap-3">
      {changes.map((change) => (
        <li key={change.line ?? 'claim'}>
          <OneChange change={change} onLine={onLine} />
        </li>
      ))}
    </ul>
  );
}

const KIND = { new: 'is new', gone: 'is gone', changed: '' } as const;

function OneChange({ change, onLine }: { change: LineChange; onLine: ChangesProps['onLine'] }) {
  const { line, title, kind, fields } = change;
  return (
    <>
      <h3 className="font-semibold">
        {line !== null && kind !== 'gone' ? (
          <button type="button" className="link" onClick={() => onLine(line)}>
            Line {line}
          </button>
        ) : (
          line !== null && `Line ${line}`
        )}{' '}
        <span className="font-normal">{title}</span> {KIND[kind]}
      </h3>
      {fields.length > 0 && (
        <table className="mt-0.5 w-full table-fixed">
          <thead className="quiet text-left text-xs">
            <tr>
              <th className="w-24 font-normal">Field</th>
              <th className="font-normal">Before</th>
              <th className="font-normal">Now</th>
            </tr>
          </thead>
          <tbody>
            {fields.map((f) => (
              <tr key={f.field} className="border-t border-base-300 align-top">
                <td className="quiet py-0.5 pr-2">{f.field}</td>
                <td className="pr-2 break-words">{f.before}</td>
                <td className="font-medium break-words">{f.now}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}
