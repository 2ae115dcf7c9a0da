import { ArrowLeft } from 'lucide-react';
import { Link, useParams } from 'react-router';
import { clearing, useClearing, type ClearingAnswer } from '../../api/clearing.ts';
import { ActButton } from '../../parts/ActButton.tsx';
import { failed } from '../../parts/failed.ts';
import { Loading, Trouble } from '../../parts/Notices.tsx';
import { sayMoment } from '../../words/sayEvent.ts';
import { rememberQueue } from './queueOrder.ts';

type Item = ClearingAnswer['items'][number];

/** Claims that are cleared together: how far it is, those that were drawn for a full look, those left out and why. */
export default function ClearingRun() {
  const { run = '' } = useParams();
  const { data, error, mutate } = useClearing(run);
  if (!data) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="rows" />;
  const act = async (what: 'stop' | 'resume') => {
    const next = await clearing[what](run).catch(failed);
    if (next) void mutate(next, { revalidate: false });
  };
  const by = (outcome: Item['outcome']) => data.items.filter((i) => i.outcome === outcome);
  const left = by(null).length;
  return (
    <div className="mx-auto w-full max-w-4xl px-4 pb-10">
      <h1 className="flex items-center gap-2 pt-3 text-xl font-semibold">
        <Link to="/desk" aria-label="Back to the Desk">
          <ArrowLeft size={16} />
        </Link>
        Cleared together
        <span className="quiet text-base font-normal">{sayMoment(data.at)}</span>
      </h1>
      <div className="mt-3 flex flex-wrap items-center gap-3">
        <progress
          className="progress progress-primary w-72"
          aria-label="Claims dealt with"
          value={data.chosen - left}
          max={data.chosen}
        />
        <span role="status">
          {data.cleared} cleared, {data.drawn} drawn, {data.leftOut} left out
          {left > 0 && `, ${left} to come`}
          {data.state === 'stopped' && ' · stopped'}
        </span>
        {data.state === 'running' && <ActButton label="Stop" run={() => void act('stop')} />}
        {data.state === 'stopped' && <ActButton label="Go on" leads run={() => void act('resume')} />}
      </div>
      <Outcome title="Drawn for a full look" items={by('drawn')} next />
      <Outcome title="Left out" items={by('left out')} />
      <Outcome title="Cleared" items={by('cleared')} />
      <p className="quiet mt-6 text-sm">
        {data.share} % are drawn, at least one: the claims whose SHA-256 of the seed, a space and their number comes
        first. Seed <code className="font-mono break-all">{data.seed}</code>
      </p>
    </div>
  );
}

function Outcome({ title, items, next = false }: { title: string; items: Item[]; next?: boolean }) {
  if (items.length === 0) return null;
  return (
    <section aria-label={title} className="mt-5">
      <h2 className="mb-1 font-semibold">
        {title} <span className="quiet font-normal">{items.length}</span>
      </h2>
      <ul className="rounded-box border border-base-300 bg-base-100">
        {items.map((item) => (
          <li key={item.number} className="border-b border-base-300 px-4 py-1.5 last:border-b-0">
            <Link
              className="link font-mono text-sm"
              to={`/desk/${item.number}`}
              onClick={() => next && rememberQueue(items.map((i) => i.number))}
            >
              {item.number}
            </Link>{' '}
            <span className="font-medium">{item.claimant}</span> <span className="quiet">{item.purpose}</span>
            {item.says && <span className="block text-sm">{item.says}</span>}
          </li>
        ))}
      </ul>
    </section>
  );
}
