import type { Role } from '../../../core/workflow/lifecycle.types.ts';
import type { Routed } from '../../../core/routing/route.schema.ts';
import type { Db } from '../../platform/db/connect.ts';

/**
 * Records that wait for somebody who does not decide as things are (left, without the role, or stood in for today where the
 * record's entity is), and those on whose route somebody was stood in for and may be back.
 */
export async function selectStuck(
  db: Db,
  now: Date,
  roles: readonly Role[],
): Promise<{ kind: Routed; number: string }[]> {
  const { rows } = await db.raw(
    `with records as (
       select 'claim' as kind, number, version, entity_id from claims where state in ('with approver', 'in review')
       union all select 'plan', number, 1, entity_id from plans where state = 'with approver'
       union all select 'advance', id, 1, entity_id from advances where state = 'requested')
     select distinct r.kind, r.number from records r
     join entities e on e.id = r.entity_id
     cross join lateral (select (:now::timestamptz at time zone e.time_zone)::date as day) d
     join approval_needs n on n.record_kind = r.kind and n.record_id = r.number and n.version = r.version and n.decided_by is null
     cross join unnest(n.people) as who (id)
     join people p on p.id = who.id
     where not p.active
       or (n.asks = 'record' and n.detours <> '[]')
       or not exists (select 1 from person_roles o where o.person_id = p.id and o.role = any(:roles::text[]) and (o.entity_id is null or o.entity_id = r.entity_id)
         and d.day between coalesce(o.valid_from, '-infinity') and coalesce(o.valid_to, 'infinity'))
       or exists (select 1 from substitutes s where s.person_id = p.id
         and d.day between coalesce(s.valid_from, '-infinity') and coalesce(s.valid_to, 'infinity'))
     order by 1, 2`,
    { now, roles: [...roles] } as never,
  );
  return rows;
}
