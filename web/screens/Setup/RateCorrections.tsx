import {
  askCorrectionSchema,
  corrections,
  useCorrections,
  type AskCorrection,
  type RateCorrection,
} from '../../api/rates.ts';
import { failed } from '../../parts/failed.ts';
import { DayOf, TextEntry } from '../../parts/form/entries.tsx';
import { useTypedForm } from '../../parts/form/useTypedForm.ts';
import { Problem } from '../../parts/Field.tsx';
import { Loading, Trouble } from '../../parts/Notices.tsx';
import { toast } from '../../parts/toast.tsx';

type Answer = Awaited<ReturnType<typeof corrections.ask>>;

/** Published rates that were entered wrongly: one person asks for the right one, another one confirms. */
export function RateCorrections({ keeps }: { keeps: boolean }) {
  const { data, error, mutate } = useCorrections();
  if (!data) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="rows" />;
  const show = (answer: Answer) => void mutate(answer, { revalidate: false });
  return (
    <section aria-labelledby="rates" className="mt-8 max-w-4xl">
      <h2 id="rates" className="text-xl font-semibold">
        Published rates put right
      </h2>
      <p className="quiet text-sm">
        One person asks with the reason, another one confirms. What was posted stays; everything else is assessed again.
      </p>
      {data.corrections.length === 0 && <p className="quiet mt-2">No rate was corrected.</p>}
      {data.corrections.length > 0 && (
        <ul className="mt-2 rounded-box border border-base-300 bg-base-100">
          {data.corrections.map((one) => (
            <Correction key={one.id} one={one} keeps={keeps} onDone={show} />
          ))}
        </ul>
      )}
      {keeps && <AskForm onAsked={show} />}
    </section>
  );
}

const STATES: Record<RateCorrection['state'], (one: RateCorrection) => string> = {
  'asked for': () => 'waits for somebody else',
  done: (one) => `put right by ${one.decidedBy}`,
  dropped: (one) => `dropped by ${one.decidedBy}`,
};

interface CorrectionProps {
  one: RateCorrection;
  keeps: boolean;
  onDone: (answer: Answer) => void;
}

function Correction({ one, keeps, onDone }: CorrectionProps) {
  const decide = async (how: 'confirm' | 'drop', done: string) => {
    const answer = await corrections.decide(one.id, one.revision, how).catch(failed);
    if (!answer) return;
    onDone(answer);
    toast({ text: done });
  };
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-base-300 px-4 py-2 last:border-b-0">
      <span className="min-w-0 flex-1">
        <span className="font-mono">
          1 {one.from} = <s>{one.was}</s> <strong>{one.becomes}</strong> {one.to}
        </span>{' '}
        on {one.date}
        <span className="quiet block text-sm">
          {one.reason} · {one.source} · asked for by {one.askedBy}
        </span>
      </span>
      <span className="quiet text-sm">{STATES[one.state](one)}</span>
      {keeps && one.state === 'asked for' && (
        <span className="flex gap-2">
          {!one.own && (
            <button
              type="button"
              className="btn btn-primary btn-xs"
              onClick={() => void decide('confirm', 'The rate is put right')}
            >
              Put it right
            </button>
          )}
          <button type="button" className="btn btn-xs" onClick={() => void decide('drop', 'The correction is dropped')}>
            Drop it
          </button>
        </span>
      )}
    </li>
  );
}

const START: AskCorrection = { from: '', to: '', date: '', becomes: '', source: '', reason: '' };

function AskForm({ onAsked }: { onAsked: (answer: Answer) => void }) {
  const typed = useTypedForm(
    { says: 'A rate to put right', schema: askCorrectionSchema, start: START },
    async (asked, form) => {
      onAsked(await corrections.ask(asked));
      form.reset();
      toast({ text: 'Somebody else is asked to put the rate right' });
    },
  );
  const { control, formState } = typed.form;
  return (
    <form onSubmit={typed.submit} aria-label="A rate to put right" className="mt-2" noValidate>
      <div className="grid gap-x-3 sm:grid-cols-3">
        <TextEntry control={control} name="from" label="From currency" placeholder="EUR" />
        <TextEntry control={control} name="to" label="To currency" placeholder="NOK" />
        <DayOf control={control} name="date" label="Published on" />
        <TextEntry control={control} name="becomes" label="The right rate" placeholder="11.630" decimal />
        <TextEntry control={control} name="source" label="Where it is published" />
        <TextEntry control={control} name="reason" label="What went wrong" />
      </div>
      <Problem says={formState.errors.root?.message ?? null} />
      <button className="btn btn-primary btn-sm mt-3" disabled={formState.isSubmitting}>
        Ask for the correction
      </button>
    </form>
  );
}
