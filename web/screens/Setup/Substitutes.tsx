import { z } from 'zod';
import { addDays } from '../../../core/numbers/isoDate.ts';
import { setup, useRows } from '../../api/setup.ts';
import { ChoiceOf, DayOf } from '../../parts/form/entries.tsx';
import { isSpan, NO_SPAN, spanTyped, wanted } from '../../parts/form/typedSchemas.ts';
import { useTypedForm } from '../../parts/form/useTypedForm.ts';
import { failed } from '../../parts/failed.ts';
import { Problem } from '../../parts/Field.tsx';
import { Loading, Trouble } from '../../parts/Notices.tsx';
import { todayHere } from '../../parts/today.ts';
import { toast } from '../../parts/toast.tsx';
import type { Named } from './Choice.tsx';

interface SubstitutesProps {
  people: Named[];
  /** Whether this person may change them; others look. */
  keeps: boolean;
}

/** Who decides for whom while they are away, and until when. What waited before waits for the substitute too. */
export function Substitutes({ people, keeps }: SubstitutesProps) {
  const { data, error, mutate } = useRows('substitutes');
  if (!data) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="rows" />;
  const today = todayHere();
  const rows = data.rows
    .filter((r) => r.validTo === null || r.validTo >= today)
    .sort((a, b) => (a.validFrom ?? '').localeCompare(b.validFrom ?? ''));
  const name = (id: unknown) => people.find((p) => p.id === id)?.name ?? String(id);
  const end = async ({ key, revision, validFrom }: (typeof rows)[number]) => {
    // one that begins today, or has not begun, ends with its first day
    const on = validFrom !== null && validFrom >= today ? validFrom : addDays(today, -1);
    const answer = await setup.end('substitutes', { revision, key, on }).catch(failed);
    if (!answer) return;
    void mutate(answer, { revalidate: false });
    toast({ text: `It ends on ${on}` });
  };
  return (
    <section aria-labelledby="substitutes" className="mt-8 max-w-3xl">
      <h2 id="substitutes" className="text-xl font-semibold">
        Substitutes
      </h2>
      <p className="quiet text-sm">
        Who decides for somebody while they are away. Nobody decides on what they made themselves.
      </p>
      {rows.length > 0 && (
        <ul className="mt-2 rounded-box border border-base-300 bg-base-100">
          {rows.map((row) => (
            <li
              key={`${row.key.join()} ${row.validFrom}`}
              className="flex flex-wrap items-center gap-x-4 border-b border-base-300 px-4 py-2 last:border-b-0"
            >
              <span className="min-w-0 flex-1">
                {name(row.row.substitute)} for <span className="font-medium">{name(row.row.person)}</span>
              </span>
              <span className="quiet text-sm">
                {row.validFrom ?? 'always'} to {row.validTo ?? 'open end'}
              </span>
              {keeps && (
                <button type="button" className="btn btn-xs" onClick={() => void end(row)}>
                  End it
                </button>
              )}
            </li>
          ))}
        </ul>
      )}
      {rows.length === 0 && <p className="quiet mt-2">Nobody is away.</p>}
      {keeps && (
        <AddSubstitute
          people={people}
          revisionOf={(person) => Math.max(0, ...data.rows.filter((r) => r.key[0] === person).map((r) => r.revision))}
          onAdded={(answer) => void mutate(answer, { revalidate: false })}
        />
      )}
    </section>
  );
}

interface AddSubstituteProps {
  people: Named[];
  revisionOf: (person: string) => number;
  onAdded: (answer: Awaited<ReturnType<typeof setup.add>>) => void;
}

const SCHEMA = z
  .object({
    person: wanted('Choose who is away.'),
    substitute: wanted('Choose who decides for them.'),
    ...spanTyped,
  })
  .refine(({ person, substitute }) => person === '' || person !== substitute, {
    path: ['substitute'],
    message: 'Nobody stands in for themselves.',
  })
  .refine(isSpan, NO_SPAN);

function AddSubstitute({ people, revisionOf, onAdded }: AddSubstituteProps) {
  const start = { person: '', substitute: '', from: todayHere(), to: '' };
  const typed = useTypedForm({ says: 'substitute', schema: SCHEMA, start }, async (said, form) => {
    const { person, substitute, from, to } = said;
    const row = { person, substitute };
    const revision = revisionOf(person);
    onAdded(await setup.add('substitutes', { revision, row, validFrom: from || null, validTo: to || null }));
    form.reset(start);
    toast({ text: 'The substitute is set' });
  });
  const { control, watch, formState } = typed.form;
  const [from, to] = watch(['from', 'to']);
  const someone = [{ id: '', name: 'choose' }, ...people];
  return (
    <form onSubmit={typed.submit} aria-label="A substitute" className="mt-2" noValidate>
      <div className="grid gap-x-3 sm:grid-cols-4">
        <ChoiceOf control={control} name="person" label="Who is away" options={someone} />
        <ChoiceOf control={control} name="substitute" label="Who decides for them" options={someone} />
        <DayOf control={control} name="from" label="From" other={to} />
        <DayOf control={control} name="to" label="To" other={from} />
      </div>
      <Problem says={formState.errors.root?.message ?? null} />
      <button className="btn btn-primary btn-sm mt-3">Set the substitute</button>
    </form>
  );
}
