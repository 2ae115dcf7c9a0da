import { failedJobs, useFailedJobs } from '../../api/jobs.ts';
import { failed } from '../../parts/failed.ts';
import { Loading, Trouble } from '../../parts/Notices.tsx';
import { toast } from '../../parts/toast.tsx';
import { sayMoment } from '../../words/sayEvent.ts';

/** What was to be done in the background and failed, why, and when it is tried again. */
export function FailedJobs() {
  const { data, error, mutate } = useFailedJobs();
  if (!data) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="rows" />;
  const again = async (id: string) => {
    const answer = await failedJobs.again(id).catch(failed);
    if (!answer) return;
    void mutate(answer, { revalidate: false });
    toast({ text: 'It is tried again' });
  };
  return (
    <section aria-labelledby="failed-jobs" className="mt-8 max-w-4xl">
      <h2 id="failed-jobs" className="text-xl font-semibold">
        Work that failed
      </h2>
      {data.jobs.length === 0 && <p className="quiet mt-2">Nothing failed.</p>}
      {data.jobs.length > 0 && (
        <ul className="mt-2 rounded-box border border-base-300 bg-base-100">
          {data.jobs.map(({ id, name, since, tries, why, next }) => (
            <li
              key={id}
              className="flex flex-wrap items-center gap-x-4 border-b border-base-300 px-4 py-2 last:border-b-0"
            >
              <span className="min-w-0 flex-1">
                <span className="font-mono">{name}</span> <span className="quiet">{why}</span>
              </span>
              <span className="quiet text-sm">
                asked for {sayMoment(since)}, tried {tries === 1 ? 'once' : `${tries} times`},{' '}
                {next ? `again ${sayMoment(next)}` : 'given up'}
              </span>
              {!next && (
                <button type="button" className="btn btn-xs" onClick={() => void again(id)}>
                  Try again
                </button>
              )}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
