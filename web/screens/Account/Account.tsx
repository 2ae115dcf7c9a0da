import { endSession, revokeToken, useSessions, useTokens, type SignedInAt, type Token } from '../../api/account.ts';
import type { Person } from '../../api/session.ts';
import { Password } from './Password.tsx';
import { SecondFactor } from './SecondFactor.tsx';
import { failed } from '../../parts/failed.ts';
import { Loading, Trouble } from '../../parts/Notices.tsx';
import { ThemeButton } from '../../parts/ThemeButton.tsx';
import { toast } from '../../parts/toast.tsx';
import { sayMoment } from '../../words/sayEvent.ts';

/** A person's own: who they are here, where they are signed in, and the tokens that act for them. */
export default function Account({ person }: { person: Person }) {
  return (
    <div className="w-full max-w-3xl p-4">
      <h1 className="flex items-center text-xl font-semibold">
        {person.name}
        <span className="ml-auto sm:hidden">
          <ThemeButton />
        </span>
      </h1>
      <p className="quiet">
        {person.email} · {person.roles.join(', ')}
      </p>
      <SecondFactor person={person} />
      <Password />
      <Sessions />
      <Tokens />
    </div>
  );
}

function Sessions() {
  const { data, error, mutate } = useSessions();
  if (!data) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="rows" />;
  const end = async ({ id }: SignedInAt) => {
    const answer = await endSession(id).catch(failed);
    if (!answer) return;
    void mutate(answer, false);
    toast({ text: 'That session has ended' });
  };
  return (
    <section className="mt-6" aria-labelledby="sessions">
      <h2 id="sessions" className="mb-1 font-semibold">
        Where you are signed in
      </h2>
      <ul className="rounded-box border border-base-300 bg-base-100">
        {data.sessions.map((s) => (
          <OwnRow
            key={s.id}
            name={s.device}
            facts={`since ${sayMoment(s.since)}, last used ${sayMoment(s.lastSeen)}`}
            end={s.here ? 'this one' : { label: 'End it', run: () => void end(s) }}
          />
        ))}
      </ul>
      <p className="quiet mt-1 text-sm">
        A session ends eight hours after it was last used, and a day after it began. End any that you do not know.
      </p>
    </section>
  );
}

interface OwnRowProps {
  name: string;
  facts: string;
  /** What ends it, or what is said where that cannot be or has been done. */
  end: { label: string; run: () => void } | string;
}

function OwnRow({ name, facts, end }: OwnRowProps) {
  return (
    <li className="flex items-center gap-3 border-b border-base-300 px-3 py-2 last:border-b-0">
      <span className="min-w-0 flex-1">
        <span className="block font-medium">{name}</span>
        <span className="quiet text-sm">{facts}</span>
      </span>
      {typeof end === 'string' ? (
        <span className="quiet text-sm">{end}</span>
      ) : (
        <button type="button" className="btn btn-sm" onClick={end.run}>
          {end.label}
        </button>
      )}
    </li>
  );
}

function Tokens() {
  const { data, mutate } = useTokens();
  const revoke = async ({ id }: Token) => {
    const answer = await revokeToken(id).catch(failed);
    if (!answer) return;
    void mutate(answer, false);
    toast({ text: 'The token opens nothing any more' });
  };
  if (!data || data.tokens.length === 0) return null;
  return (
    <section className="mt-6" aria-labelledby="tokens">
      <h2 id="tokens" className="mb-1 font-semibold">
        Tokens that act for you
      </h2>
      <ul className="rounded-box border border-base-300 bg-base-100">
        {data.tokens.map((t) => (
          <OwnRow
            key={t.id}
            name={t.name}
            facts={`as ${t.roles.join(', ')}, made ${sayMoment(t.madeAt)}`}
            end={t.revokedAt ? `revoked ${sayMoment(t.revokedAt)}` : { label: 'Revoke', run: () => void revoke(t) }}
          />
        ))}
      </ul>
    </section>
  );
}
