import { judgeRequest } from '../../../core/advances/judgeRequest.ts';
import type { AdvanceRule } from '../../../core/advances/advance.schema.ts';
import type { AdvanceProblem } from '../../../core/advances/advances.types.ts';
import type { Db } from '../../platform/db/connect.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { selectOpenAdvances, type AdvanceRow } from '../../records/advances/advances.queries.ts';
import { ratesOn } from '../../records/book/ratesOn.ts';
import { selectPerson } from '../../records/people/people.queries.ts';
import { selectAdvanceRules } from './advances.queries.ts';

type Judged = Pick<AdvanceRow, 'person_id' | 'entity_id' | 'currency' | 'amount' | 'kind'> & { id: string | null };

/** What stands against an advance on a day, by the rules and what the person has open besides. */
export async function judge(trx: Db, row: Judged, on: string): Promise<AdvanceProblem[]> {
  const rules: ({ id: string } & AdvanceRule)[] = await selectAdvanceRules(trx, on);
  const others = await selectOpenAdvances(trx, { person: row.person_id, entity: row.entity_id, apart: row.id });
  const limits = rules.flatMap(({ is }) => (is.rule === 'most open' ? [is.currency] : []));
  const rates = await ratesOn(trx, [row.currency, ...others.map((a) => a.currency), ...limits], on);
  const person = (await selectPerson(trx, row.person_id))!;
  const { kind, entity_id: entity, currency, amount } = row;
  return judgeRequest({ kind, entity, currency, amount, on, person }, { rules, others, rates });
}

/** Refuses what no reason opens, and what a reason would open as long as none is given. */
export function refuseProblems(problems: readonly AdvanceProblem[], reason: string | null): void {
  const stop = problems.find((p) => p.severity === 'stop');
  if (stop) throw new Refused('no-advance', { says: stop.says });
  if (problems[0] && !reason) throw new Refused('exception-wanted', { first: problems[0].says });
}
