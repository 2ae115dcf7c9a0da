import { useState } from 'react';
import type { Person } from '../../api/session.ts';
import { gather, useCards, useStatements, type FileAnswer, type Mapping } from '../../api/gather.ts';
import { fileAnswer } from '../../../contract/statements.ts';
import { upload } from '../../api/upload.ts';
import { groupDigits } from '../../parts/Money.tsx';
import { Empty, Loading, Trouble } from '../../parts/Notices.tsx';
import { toast } from '../../parts/toast.tsx';
import { sayMoment } from '../../words/sayEvent.ts';
import { DropZone } from './DropZone.tsx';
import { MappingForm } from './MappingForm.tsx';
import { failed } from './failed.ts';
import type { Upload } from './useUploads.ts';

const FEED_WAIT_MS = 8000;
let nextKey = 1;
type Table = Extract<FileAnswer, { kind: 'table' }>;

/** Statements as they came: by the nightly feed and by hand, with what was added and what was refused. */
export function Statements({ person }: { person: Person }) {
  const [fetching, setFetching] = useState(false);
  const { data, error, mutate } = useStatements(fetching);
  const { data: cards } = useCards();
  const [uploads, setUploads] = useState<Upload[]>([]);
  const [quietShown, setQuietShown] = useState(false);
  const [table, setTable] = useState<{ file: File; answer: Table } | null>(null);
  const may = (['reviewer', 'controller', 'administrator'] as const).some((role) => person.roles.includes(role));
  if (error) return <Trouble error={error} retry={() => void mutate()} />;
  if (!data) return <Loading shape="rows" />;
  const eventful = data.statements.filter((s) => s.entries > 0 || s.state === 'refused');
  const rows = quietShown ? data.statements : eventful;
  const change = (key: number, changes: Partial<Upload>) =>
    setUploads((all) => all.map((u) => (u.key === key ? { ...u, ...changes } : u)));
  const one = async (file: File, options: { card?: string; mapping?: Mapping }) => {
    const key = nextKey++;
    setUploads((all) => [
      ...all.filter((u) => u.says || !u.done),
      { key, name: file.name, part: 0, done: false, says: null, remark: null },
    ]);
    try {
      const answer = await upload('/statements', fileAnswer, file, (part) => change(key, { part }), options);
      if (answer.kind === 'table') {
        setTable({ file, answer });
        change(key, { done: true, part: 1, remark: 'Say which column holds what.' });
      } else {
        setTable(null);
        change(key, { done: true, part: 1, ...sayOutcome(answer) });
      }
    } catch (failure) {
      change(key, { done: true, says: failure instanceof Error ? failure.message : 'The file was not read.' });
    }
    void mutate();
  };
  const add = async (files: Iterable<File>) => {
    for (const file of files) await one(file, {});
  };
  const fetchNow = async () => {
    setFetching(true);
    await gather.fetchFeed().then(() => toast({ text: 'The bank is asked; what it has comes in below.' }), failed);
    setTimeout(() => setFetching(false), FEED_WAIT_MS);
  };
  return (
    <div className="w-full flex-1 p-3 sm:p-4">
      <h1 className="sr-only">Statements</h1>
      {may && (
        <DropZone
          uploads={uploads}
          onFiles={(files) => void add(files)}
          onDismiss={(key) => setUploads((all) => all.filter((u) => u.key !== key))}
          accept=".xml,.ofx,.qfx,.sta,.mt940,.940,.csv,.txt"
          hint="camt.053, OFX, MT940, or CSV"
        />
      )}
      {table && cards && (
        <MappingForm
          key={table.answer.name}
          table={table.answer}
          cards={cards.cards}
          onImport={(card, mapping) => void one(table.file, { card, mapping })}
          onClose={() => setTable(null)}
        />
      )}
      <div className="mt-3 flex flex-wrap items-center gap-3 text-sm">
        <span>
          {data.feed.connected
            ? data.feed.at
              ? `The bank was last asked ${sayMoment(data.feed.at)}.`
              : 'The bank has not been asked yet.'
            : 'No bank is connected here.'}
        </span>
        {may && data.feed.connected && (
          <button type="button" className="btn btn-xs" disabled={fetching} onClick={() => void fetchNow()}>
            Ask now
          </button>
        )}
        {eventful.length < data.statements.length && (
          <button type="button" className="link" onClick={() => setQuietShown(!quietShown)}>
            {quietShown ? 'Hide' : 'Show'} {data.statements.length - eventful.length} without entries
          </button>
        )}
        {data.feed.says && <span className="text-error">{data.feed.says}</span>}
      </div>
      {data.statements.length === 0 ? (
        <Empty title="No statements yet">They come every night from the bank, or from files you add here.</Empty>
      ) : (
        <div className="mt-3 overflow-x-auto rounded-box border border-base-300 bg-base-100">
          <table className="w-full text-sm">
            <thead className="quiet text-left">
              <tr>
                {['Came', 'Document', 'Card', 'Days', 'Entries', 'New', 'Closes with'].map((h, i) => (
                  <th key={h} className={`px-3 py-1 font-normal ${i > 3 ? 'text-right' : ''}`}>
                    {h}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map((s) => (
                <tr key={s.id} className="border-t border-base-300 align-top">
                  <td className="px-3 py-1 whitespace-nowrap">{sayMoment(s.at)}</td>
                  <td className="px-3 py-1">
                    <bdi>{s.name}</bdi>{' '}
                    <span className="quiet">
                      {s.format}
                      {s.by ? `, ${s.by}` : ', feed'}
                    </span>
                    {s.says && <span className="block max-w-xl text-error">{s.says}</span>}
                  </td>
                  <td className="px-3 py-1 font-mono">{s.card ?? '–'}</td>
                  <td className="px-3 py-1 whitespace-nowrap">{s.from === s.to ? s.from : `${s.from} to ${s.to}`}</td>
                  <td className="px-3 py-1 text-right">{s.entries}</td>
                  <td className={`px-3 py-1 text-right ${s.state === 'refused' ? 'text-error' : ''}`}>
                    {s.state === 'refused' ? 'refused' : s.added}
                  </td>
                  <td className="money px-3 py-1">
                    {s.closing === null ? '–' : `${groupDigits(s.closing)} ${s.currency}`}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </div>
  );
}

/** What became of a file, in words: what was added, and each thing that was not, at its place. */
function sayOutcome(answer: Extract<FileAnswer, { kind: 'imported' }>): Pick<Upload, 'says' | 'remark'> {
  const faults = [
    ...answer.outcomes
      .filter((o) => o.state === 'refused')
      .map((o) => `${o.account ? `Card ${o.account.slice(-4)}: ` : ''}${o.says}`),
    ...answer.problems.map((p) => `Line ${p.line}: ${p.says}.`),
  ];
  const good = answer.outcomes.filter((o) => o.state !== 'refused');
  const remark = good
    .map((o) => o.says ?? `Card ${o.account?.slice(-4)}: ${o.added} new of ${o.entries} entries.`)
    .join(' ');
  return { says: faults.join(' ') || null, remark: remark || null };
}
