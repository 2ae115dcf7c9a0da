import type { Hearer } from '../../../core/workflow/concerned.ts';
import { FINANCE } from '../../../core/workflow/lifecycle.types.ts';
import type { Db } from '../db/connect.ts';

export interface NewMessages {
  record: { kind: string; id: string };
  event: string;
  actor: string | null;
  hearers: readonly Hearer[];
  /** Kinds of events whose actors hear of this one too. */
  did: readonly string[];
  /** Where those hold a role of finance still. */
  entity: string | null;
  facts: Record<string, unknown>;
  at: Date;
  /** Nothing of it is mailed. */
  quiet: boolean;
}

/** Keeps a message for each hearer, and for who did something before that the act answers; how each wants it by mail. */
export async function insertMessages(trx: Db, message: NewMessages): Promise<string[]> {
  const { record, event, actor, hearers, did, entity, facts, at, quiet } = message;
  const { rows } = await trx.raw(
    `with heard as (
       select h.person, h.hears_as from unnest(?::text[], ?::text[]) as h (person, hears_as)
       union all select distinct e.actor_id, 'reviewer' from events e
         where e.record_kind = ? and e.record_id = ? and e.kind = any(?::text[]) and exists (select 1 from person_roles r
           where r.person_id = e.actor_id and r.role = any(?::text[]) and (r.entity_id is null or r.entity_id = ?::text)
           and (?::timestamptz at time zone coalesce((select time_zone from entities where id = ?), 'UTC'))::date between coalesce(r.valid_from, '-infinity') and coalesce(r.valid_to, 'infinity'))
     )
     insert into messages (person_id, hears_as, record_kind, record_id, event, by_id, facts, at, mail)
       select distinct on (x.person) x.person, x.hears_as, ?, ?, ?, ?::text, ?::jsonb, ?::timestamptz,
         case when ? then 'none' else p.mail end
       from heard x join people p on p.id = x.person and p.active
       where x.person is distinct from ?::text order by x.person, x.hears_as
     returning mail`,
    [
      hearers.map((h) => h.person),
      hearers.map((h) => h.as),
      record.kind,
      record.id,
      [...did],
      [...FINANCE],
      entity,
      at,
      entity,
      record.kind,
      record.id,
      event,
      actor,
      JSON.stringify(facts),
      at,
      quiet,
      actor,
    ] as never,
  );
  return (rows as { mail: string }[]).map((r) => r.mail);
}
