import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { MakerView } from '../../api/claims.ts';
import { Cell } from '../../parts/Cell.tsx';
import { readMoney } from '../../parts/readMoney.ts';
import { groupDigits } from '../../../core/numbers/groupDigits.ts';
import type { Draft } from './prepare/useDraft.ts';

interface ClaimAdvancesProps {
  view: MakerView;
  /** Missing where the claim is not in preparation. */
  draft?: Draft | undefined;
}

/** The claimant's advances beside the claim: what was paid out, what of it is accounted for, and what this claim takes. */
export function ClaimAdvances({ view, draft }: ClaimAdvancesProps) {
  if (view.advances.length === 0) return null;
  const wanted = view.advances.filter((a) => a.here !== null).map((a) => ({ advance: a.number, upTo: a.here!.upTo }));
  const set = (advances: typeof wanted, done?: (error: Error | null) => void) => draft?.editHeader({ advances }, done);
  const toggle = (number: string, on: boolean) =>
    set(on ? [...wanted, { advance: number, upTo: null }] : wanted.filter((w) => w.advance !== number));
  return (
    <section aria-label="Advances" className="mt-3 rounded-box border border-base-300 bg-base-100 px-4 py-3">
      <h2 className="mb-1 font-semibold">Advances</h2>
      <ul>
        {view.advances.map((a) => (
          <li
            key={a.number}
            className="grid items-start gap-x-6 gap-y-1 border-b border-base-300 py-1.5 last:border-b-0 sm:grid-cols-[minmax(0,1fr)_13rem_14rem]"
          >
            <span className="min-w-0">
              <Link className="link font-mono" to={`/advances/${a.number}`}>
                {a.number}
              </Link>{' '}
              {a.purpose}
              <span className="quiet block text-sm">
                {a.overdue ? <strong>overdue since {a.dueBy}</strong> : a.dueBy && `to be accounted for by ${a.dueBy}`}
              </span>
              {draft && (
                <label className="mt-1 flex items-center gap-2 text-sm">
                  <input
                    type="checkbox"
                    className="checkbox checkbox-xs"
                    checked={a.here !== null}
                    onChange={(e) => toggle(a.number, e.target.checked)}
                  />
                  Set this claim against it
                </label>
              )}
            </span>
            <Now advance={a} />
            <Here view={view} advance={a}>
              {draft && a.here && (
                <span className="cells-open flex items-center justify-end gap-1 text-sm">
                  <span className="quiet">at most</span>
                  <span className="w-28">
                    <Cell
                      row={-1}
                      column="at most"
                      label={`At most of ${a.number}`}
                      value={a.here.upTo ? `${a.here.upTo} ${view.claim.currency}` : ''}
                      placeholder="all of it"
                      problemOf={(typed) => problemOf(typed, view.claim.currency)}
                      onSave={(typed, done) => {
                        const money = readMoney(typed, view.claim.currency);
                        const upTo = typed.trim() && money.ok ? money.amount : null;
                        set(
                          wanted.map((w) => (w.advance === a.number ? { ...w, upTo } : w)),
                          done,
                        );
                      }}
                    />
                  </span>
                </span>
              )}
            </Here>
          </li>
        ))}
      </ul>
    </section>
  );
}

const POSTED = new Set(['posted', 'part paid', 'paid', 'payment rejected']);
type Advance = MakerView['advances'][number];

function problemOf(typed: string, currency: string): string | null {
  if (!typed.trim()) return null;
  const money = readMoney(typed, currency);
  if (!money.ok) return money.problem;
  return money.currency === currency ? null : `In ${currency}, the currency of the claim.`;
}

/** As it stands by what is posted. */
const Now = ({ advance: a }: { advance: Advance }) => (
  <dl className="grid grid-cols-[1fr_auto] gap-x-3 text-sm">
    <Row name="paid out" amount={a.paidOut} />
    <Row name="− accounted for" amount={a.accountedFor} />
    <Row name="− given back" amount={a.givenBack} />
    <Row name={`open, ${a.currency}`} amount={a.open} strong />
  </dl>
);

/** What this claim takes of it, and what is then left. */
function Here({ view, advance, children }: { view: MakerView; advance: Advance; children: ReactNode }) {
  const taken = view.settlement.fromAdvances.find((f) => f.advance === advance.number);
  const posted = POSTED.has(view.claim.state);
  if (!taken) return <span className="quiet text-right text-sm">this claim takes nothing of it</span>;
  return (
    <span>
      <dl className="grid grid-cols-[1fr_auto] gap-x-3 text-sm">
        <Row name={posted ? 'this claim took' : 'this claim takes'} amount={taken.part} />
        {!posted && <Row name="then still open" amount={taken.left} strong />}
      </dl>
      {children}
    </span>
  );
}

const Row = ({ name, amount, strong = false }: { name: string; amount: string | null; strong?: boolean }) => (
  <>
    <dt className={strong ? 'font-medium' : 'quiet'}>{name}</dt>
    <dd className={`money ${strong ? 'font-medium' : ''}`}>{amount === null ? '–' : groupDigits(amount)}</dd>
  </>
);
