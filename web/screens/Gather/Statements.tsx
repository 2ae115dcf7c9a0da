import { useState } from 'react';
import type { Person } from '../../api/session.ts';
import { gather, useCards, useStatements, type StatementsView } from '../../api/gather.ts';
import { Empty, Loading, Trouble } from '../../parts/Notices.tsx';
import { toast } from '../../parts/toast.tsx';
import { sayMoment } from '../../words/sayEvent.ts';
import { DropZone } from '../../parts/DropZone.tsx';
import { MappingForm } from './MappingForm.tsx';
import { failed } from '../../parts/failed.ts';
import { StatementTable } from './StatementTable.tsx';
import { useStatementFiles } from './useStatementFiles.ts';

const FEED_WAIT_MS = 8000;
const MAY_IMPORT = ['reviewer', 'controller', 'administrator'] as const;

/** Statements as they came: by the nightly feed and by hand, with what was added and what was refused. */
export function Statements({ person }: { person: Person }) {
  const [fetching, setFetching] = useState(false);
  const { data, error, mutate } = useStatements(fetching);
  const [quietShown, setQuietShown] = useState(false);
  if (!data) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="rows" />;
  const may = MAY_IMPORT.some((role) => person.roles.includes(role));
  const eventful = data.statements.filter((s) => s.entries > 0 || s.state === 'refused');
  const quiet = data.statements.length - eventful.length;
  const fetchNow = async () => {
    setFetching(true);
    await gather.fetchFeed().then(() => toast({ text: 'The bank is asked; what it has comes in below.' }), failed);
    setTimeout(() => setFetching(false), FEED_WAIT_MS);
  };
  return (
    <div className="w-full flex-1 p-3 sm:p-4">
      <h1 className="sr-only">Statements</h1>
      {may && <ByHand onImported={() => void mutate()} />}
      <FeedLine
        feed={data.feed}
        quiet={quiet}
        shown={quietShown}
        onShown={() => setQuietShown(!quietShown)}
        ask={may && data.feed.connected ? { busy: fetching, run: () => void fetchNow() } : null}
      />
      {data.statements.length === 0 ? (
        <Empty title="No statements yet">They come every night from the bank, or from files you add here.</Empty>
      ) : (
        <StatementTable rows={quietShown ? data.statements : eventful} onChanged={() => void mutate()} />
      )}
    </div>
  );
}

interface FeedLineProps {
  feed: StatementsView['feed'];
  quiet: number;
  shown: boolean;
  onShown: () => void;
  ask: { busy: boolean; run: () => void } | null;
}

function FeedLine({ feed, quiet, shown, onShown, ask }: FeedLineProps) {
  return (
    <div className="mt-3 flex flex-wrap items-center gap-3 text-sm">
      <span>{sayFeed(feed)}</span>
      {ask && (
        <button type="button" className="btn btn-xs" disabled={ask.busy} onClick={ask.run}>
          Ask now
        </button>
      )}
      {quiet > 0 && (
        <button type="button" className="link" onClick={onShown}>
          {shown ? 'Hide' : 'Show'} {quiet} without entries
        </button>
      )}
      {feed.says && <span className="text-error">{feed.says}</span>}
    </div>
  );
}

function sayFeed({ connected, at }: StatementsView['feed']): string {
  if (!connected) return 'No bank is connected here.';
  return at ? `The bank was last asked ${sayMoment(at)}.` : 'The bank has not been asked yet.';
}

/** Files brought by hand; a table is asked for its columns first. */
function ByHand({ onImported }: { onImported: () => void }) {
  const { data: cards } = useCards();
  const { uploads, table, setTable, one, dismiss } = useStatementFiles(onImported);
  const add = async (files: Iterable<File>) => {
    for (const file of files) await one(file, {});
  };
  return (
    <>
      <DropZone
        uploads={uploads}
        onFiles={(files) => void add(files)}
        onDismiss={dismiss}
        accept=".xml,.ofx,.qfx,.sta,.mt940,.940,.csv,.txt"
        hint="camt.053, 052 or 054, OFX, MT940, or CSV"
      />
      {table && cards && (
        <MappingForm
          key={table.answer.name}
          asked={table}
          cards={cards.cards}
          onAsk={(options) => void one(table.file, options)}
          onChange={() => setTable({ ...table, rehearsal: null })}
          onClose={() => setTable(null)}
        />
      )}
    </>
  );
}
