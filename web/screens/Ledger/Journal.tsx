import { ArrowLeft } from 'lucide-react';
import { Fragment, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { useSWRConfig } from 'swr';
import { accountName, sayCoding, useChart, type Chart } from '../../api/chart.ts';
import { reverse, useJournal, type JournalAnswer, type JournalRow } from '../../api/journals.ts';
import { Money } from '../../parts/Money.tsx';
import { groupDigits } from '../../../core/numbers/groupDigits.ts';
import { JournalHead, JournalMoney } from '../../parts/journalCells.tsx';
import { Loading, Trouble } from '../../parts/Notices.tsx';
import { ReasonForm } from '../../parts/ReasonForm.tsx';
import { ReceiptViewer } from '../../parts/ReceiptViewer.tsx';
import { toast } from '../../parts/toast.tsx';
import { sayPurpose } from '../../words/sayPurpose.ts';
import { sayMoment } from '../../words/sayEvent.ts';
import { DayField } from '../../parts/days/DayField.tsx';

/** One journal: its rows, each opening to the share, line and receipt it came from; and its reversal. */
export default function Journal() {
  const { number = '' } = useParams();
  const { data, error, mutate } = useJournal(number);
  const [reversing, setReversing] = useState(false);
  if (!data) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="rows" />;
  return (
    <div>
      <Title data={data} onReverse={() => setReversing(!reversing)} />
      {reversing && <Reversal view={data} onClose={() => setReversing(false)} />}
      <Rows view={data} />
    </div>
  );
}

function Title({ data, onReverse }: { data: JournalAnswer; onReverse: () => void }) {
  const { journal } = data;
  return (
    <div className="flex flex-wrap items-start gap-4 border-b border-base-300 bg-base-100 px-4 py-2">
      <div className="min-w-0 flex-1">
        <h1 className="flex items-center gap-2 text-lg font-semibold">
          <Link to="/ledger" aria-label="Back to the Ledger">
            <ArrowLeft size={16} />
          </Link>
          <span className="font-mono">{journal.number}</span> {sayPurpose(journal.purpose)} of {journal.date}
        </h1>
        <p className="truncate">
          <Subject journal={journal} /> {journal.person}, {journal.about}
        </p>
        <PostedBy journal={journal} />
      </div>
      <p className="text-right">
        <Money amount={journal.total} currency={journal.currency} strong />
        <span className="quiet block text-sm">on either side</span>
      </p>
      {data.mayReverse && (
        <button type="button" className="btn btn-sm" onClick={onReverse}>
          Reverse…
        </button>
      )}
    </div>
  );
}

function PostedBy({ journal }: { journal: JournalAnswer['journal'] }) {
  return (
    <p className="quiet text-sm">
      by {journal.postedBy}, {sayMoment(journal.postedAt)}
      {journal.reverses && (
        <>
          {' '}
          · reverses{' '}
          <Link className="link" to={`/ledger/${journal.reverses}`}>
            {journal.reverses}
          </Link>
          : {journal.reason}
        </>
      )}
      {journal.reversedBy && (
        <>
          {' '}
          · reversed by{' '}
          <Link className="link" to={`/ledger/${journal.reversedBy}`}>
            {journal.reversedBy}
          </Link>
        </>
      )}
    </p>
  );
}

/** What a journal is about: the claim it comes from, or the name of its source. */
function Subject({ journal }: { journal: JournalAnswer['journal'] }) {
  if (!journal.claim) return <span className="font-mono">{journal.source.id}</span>;
  return (
    <Link className="link" to={`/desk/${journal.claim}`}>
      {journal.claim}
    </Link>
  );
}

function Reversal({ view, onClose }: { view: JournalAnswer; onClose: () => void }) {
  const [date, setDate] = useState(() => proposedDate(view));
  const navigate = useNavigate();
  const { mutate } = useSWRConfig();
  const submit = async (reason: string) => {
    try {
      const { journal } = await reverse(view.journal.number, { date, reason });
      await mutate((k) => typeof k === 'string');
      toast({ text: `Reversed by ${journal}` });
      void navigate(`/ledger/${journal}`);
    } catch (error) {
      toast({ text: (error as Error).message, tone: 'bad' });
    }
  };
  return (
    <ReasonForm
      label="Why it is reversed"
      act="Post the reversal"
      note="The rows below are posted again with debit and credit exchanged."
      onSubmit={submit}
      onClose={onClose}
    >
      <label className="flex items-center gap-2">
        Date <DayField required className="input input-sm" value={date} onChange={(day) => setDate(day)} />
      </label>
    </ReasonForm>
  );
}

/** Today when its period is open, else the last day that can be posted to. */
function proposedDate({ openPeriods }: JournalAnswer): string {
  const today = new Date().toISOString().slice(0, 10);
  return openPeriods.some((p) => p.from <= today && today <= p.to) ? today : (openPeriods.at(-1)?.to ?? today);
}

function Rows({ view }: { view: JournalAnswer }) {
  const { data: chart } = useChart();
  const [open, setOpen] = useState<number | null>(null);
  const ledger = view.journal.currency;
  return (
    <table className="w-full bg-base-100">
      <JournalHead ledger={ledger} third="Text" />
      <tbody>
        {view.rows.map((row) => (
          <Fragment key={row.position}>
            <Row
              row={row}
              chart={chart}
              open={open === row.position}
              onToggle={() => setOpen(open === row.position ? null : row.position)}
            />
            {open === row.position && (
              <tr>
                <td colSpan={6} className="p-0">
                  <Origin row={row} claim={view.journal.claim ?? ''} />
                </td>
              </tr>
            )}
          </Fragment>
        ))}
      </tbody>
    </table>
  );
}

interface RowProps {
  row: JournalRow;
  chart: Chart | undefined;
  open: boolean;
  onToggle: () => void;
}

function Row({ row, chart, open, onToggle }: RowProps) {
  return (
    <tr className="border-t border-base-300 align-baseline">
      <td className="py-1 pl-4">
        <Account row={row} open={open} onToggle={onToggle} />
        {accountName(chart, row.account)}
      </td>
      <td className="quiet px-2 py-1 text-sm">{sayCoding(row.coding, chart)}</td>
      <td className="quiet max-w-72 truncate px-2 py-1 text-sm" title={row.text}>
        {row.text}
      </td>
      <JournalMoney row={row} />
    </tr>
  );
}

function Account({ row, open, onToggle }: { row: JournalRow; open: boolean; onToggle: () => void }) {
  return (
    <>
      {row.line ? (
        <button type="button" aria-expanded={open} className="link" onClick={onToggle}>
          <span className="font-mono">{row.account}</span>
        </button>
      ) : (
        <span className="font-mono">{row.account}</span>
      )}{' '}
    </>
  );
}

/** Where a row came from, as it was when it was posted: the share, the line or item, the receipt. */
function Origin({ row, claim }: { row: JournalRow; claim: string }) {
  const { origin } = row;
  if (!origin) return null;
  const { share, receipt } = origin;
  return (
    <div className="grid gap-4 border-l-4 border-primary bg-base-200 px-4 py-2 md:grid-cols-[1fr_20rem]">
      <dl className="grid grid-cols-[8rem_1fr] content-start gap-x-3 text-sm">
        {share && <ShareFacts share={share} index={row.share!} currency={origin.currency} />}
        <dt className="quiet">Line</dt>
        <dd>
          <Link className="link" to={`/desk/${claim}`}>
            {claim}
          </Link>{' '}
          line {row.line}
          {row.item && `, item ${row.item}`}: {origin.merchant}, {origin.date},{' '}
          <Money amount={origin.amount} currency={origin.currency} />
        </dd>
        <dt className="quiet">Receipt</dt>
        <dd>{receipt ? `${receipt.merchant}, ${receipt.date}, ${receipt.amount} ${receipt.currency}` : 'none'}</dd>
      </dl>
      {receipt && <ReceiptViewer id={receipt.id} pages={receipt.pages} label="Receipt" />}
    </div>
  );
}

interface ShareFactsProps {
  share: NonNullable<NonNullable<JournalRow['origin']>['share']>;
  index: number;
  currency: string;
}

function ShareFacts({ share, index, currency }: ShareFactsProps) {
  return (
    <>
      <dt className="quiet">Share</dt>
      <dd>
        {index + 1} of {share.of}: gross {groupDigits(share.gross ?? '')}, tax back{' '}
        {groupDigits(share.recoverable ?? '')}, cost {groupDigits(share.cost ?? '')} {currency}
      </dd>
    </>
  );
}
