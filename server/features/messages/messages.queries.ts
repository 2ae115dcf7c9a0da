import type { MailChoice } from '../../../contract/messages.ts';
import type { Message } from '../../../core/messages/sayMessage.ts';
import type { Db } from '../../platform/db/connect.ts';

/** A message with names for people, and whether it was read. */
export type MessageRow = Message & { id: bigint; at: Date; read_at: Date | null };

/** Whether a decision still waits for whom a message is about; others are about what happened, which stays so. */
const WAITS = `(m.hears_as <> 'decider' or (m.event = 'questions sent' and exists (select 1 from claims c
  where c.number = m.record_id and m.person_id = any(c.questioned))) or exists (select 1 from approval_needs n where n.waiting and m.event <> 'questions sent' and n.record_kind = m.record_kind
  and n.record_id = m.record_id and (m.person_id = any(n.people) or m.instead_of = any(n.people))))`;

const messages = (db: Db) =>
  db('messages as m')
    .leftJoin('people as b', 'b.id', 'm.by_id')
    .leftJoin('people as s', 's.id', 'm.instead_of')
    .joinRaw(`left join people w on w.id = m.facts ->> 'whose'`)
    .select(
      'm.id',
      'm.at',
      'm.read_at',
      'm.record_kind as record',
      'm.record_id as number',
      'm.event',
      'm.hears_as as as',
    )
    .select('m.facts', 'b.name as by', 's.name as insteadOf', 'w.name as whose')
    .select(
      db.raw(
        `m.facts ->> 'purpose' as purpose, m.facts ->> 'amount' as amount, m.facts ->> 'currency' as currency, ${WAITS} as waits`,
      ),
    );

/** A page of what a person heard of, the newest first, before a message if one is named. */
export function selectMessages(db: Db, person: string, before: string | null, most: number): Promise<MessageRow[]> {
  const query = messages(db).where('m.person_id', person).orderByRaw('m.at desc, m.id desc').limit(most);
  if (before !== null) query.whereRaw('(m.at, m.id) < (select at, id from messages where id = ?)', [before]);
  return query as unknown as Promise<MessageRow[]>;
}
export async function countUnread(db: Db, person: string): Promise<number> {
  const row = await db('messages as m')
    .where({ person_id: person })
    .whereNull('read_at')
    .whereRaw(WAITS)
    .count({ n: '*' })
    .first();
  return Number(row?.n ?? 0);
}
export async function markRead(db: Db, person: string, upTo: string, at: Date): Promise<void> {
  await db('messages')
    .where({ person_id: person })
    .whereNull('read_at')
    .whereRaw('(at, id) <= (select at, id from messages where id = ? and person_id = ?)', [upTo, person])
    .update({ read_at: at });
}
export async function selectMailChoice(db: Db, person: string): Promise<{ mail: MailChoice; email: string }> {
  return (await db('people').where({ id: person }).first('mail', 'email'))!;
}
export async function updateMailChoice(db: Db, person: string, mail: MailChoice): Promise<void> {
  await db('people').where({ id: person }).update({ mail });
}

/**
 * A message to each substitute of the day about each record that waits for whom they stand in, unless they were told; it says
 * what the one they stand in for was told. Their makers, and who holds no role that decides, are left out. How they want it by mail.
 */
export async function insertStandIns(
  trx: Db,
  { at, roles }: { at: Date; roles: readonly string[] },
): Promise<string[]> {
  // one process at a time: what another one just told is seen
  await trx.raw(`select pg_advisory_xact_lock(hashtext('stand-ins'))`);
  const { rows } = await trx.raw(
    `insert into messages (person_id, hears_as, instead_of, record_kind, record_id, event, by_id, facts, at, mail)
       select distinct on (s.substitute_id, m.record_kind, m.record_id)
         s.substitute_id, 'decider', s.person_id, m.record_kind, m.record_id, m.event, m.by_id, m.facts, ?::timestamptz, p.mail
       from substitutes s join people p on p.id = s.substitute_id and p.active
       cross join lateral (select (?::timestamptz at time zone e.time_zone)::date as day from entities e join people a on a.entity_id = e.id where a.id = s.person_id) d
       join approval_needs n on n.waiting and s.person_id = any(n.people)
       join messages m on m.person_id = s.person_id and m.hears_as = 'decider' and m.record_kind = n.record_kind and m.record_id = n.record_id
       where d.day between coalesce(s.valid_from, '-infinity') and coalesce(s.valid_to, 'infinity')
         and m.facts ->> 'whose' <> s.substitute_id
         and exists (select 1 from person_roles r where r.person_id = p.id and r.role = any(?::text[])
           and d.day between coalesce(r.valid_from, '-infinity') and coalesce(r.valid_to, 'infinity'))
         and not exists (select 1 from messages o where o.person_id = p.id and o.record_kind = m.record_kind and o.record_id = m.record_id
           and o.hears_as = 'decider' and o.at >= m.at)
       order by s.substitute_id, m.record_kind, m.record_id, m.id desc
     returning mail`,
    [at, at, [...roles]] as never,
  );
  return (rows as { mail: string }[]).map((r) => r.mail);
}

export interface MailRow extends MessageRow {
  email: string;
}
const MOST_TRIES = 20;
/** The oldest message that waits to be mailed at once, locked; what another process holds is passed over. */
export async function lockNextMail(trx: Db, now: Date): Promise<MailRow | undefined> {
  const row = await trx('messages')
    .where({ mail: 'at once' })
    .whereNull('mailed_at')
    .where('mail_tries', '<', MOST_TRIES)
    .where((of) => of.whereNull('mail_after').orWhere('mail_after', '<=', now))
    .orderBy('id')
    .forUpdate()
    .skipLocked()
    .first('id', 'person_id');
  if (!row) return undefined;
  const [message] = (await messages(trx).whereRaw('m.id = ?', [String(row.id)])) as unknown as MessageRow[];
  const { email } = await selectMailChoice(trx, row.person_id);
  return { ...message!, email };
}
/** Notes that a mail was refused; it is tried again after a while, longer each time, and given up in the end. */
export async function postponeMail(trx: Db, id: bigint, now: Date): Promise<void> {
  await trx('messages')
    .whereRaw('id = ?', [String(id)])
    .update({
      mail_tries: trx.raw('mail_tries + 1'),
      mail_after: trx.raw(`?::timestamptz + least(60, power(2, mail_tries)) * interval '1 minute'`, [now]),
    });
}
export async function markMailed(trx: Db, ids: readonly bigint[], at: Date): Promise<void> {
  await trx('messages').whereIn('id', ids.map(String)).update({ mailed_at: at });
}

export interface DigestPerson {
  id: string;
  email: string;
  time_zone: string;
  digest_on: string | null;
}
/** Who wants one mail a day and has something for it. */
export const selectDigestPeople = (db: Db): Promise<DigestPerson[]> =>
  db('people as p')
    .join('entities as e', 'e.id', 'p.entity_id')
    .where('p.active', true)
    .whereExists(db('messages as m').whereRaw('m.person_id = p.id').where('m.mail', 'daily').whereNull('m.mailed_at'))
    .orderBy('p.id')
    .select('p.id', 'p.email', 'e.time_zone', 'p.digest_on');
/** The person, locked, unless another process sends theirs or did. */
export const lockDigest = (trx: Db, person: string, on: string): Promise<{ id: string } | undefined> =>
  trx('people')
    .where({ id: person })
    .whereRaw('digest_on is distinct from ?::date', [on])
    .forNoKeyUpdate()
    .skipLocked()
    .first('id');
export async function selectDigest(trx: Db, person: string): Promise<MessageRow[]> {
  return (await messages(trx)
    .where({ 'm.person_id': person, 'm.mail': 'daily' })
    .whereNull('m.mailed_at')
    .orderBy('m.id')) as unknown as MessageRow[];
}
export async function updateDigest(trx: Db, person: string, on: string): Promise<void> {
  await trx('people').where({ id: person }).update({ digest_on: on });
}

/** Whether what somebody brought to show who they are still does: their session or token. */
export async function isSignedIn(db: Db, { id, proof }: { id: string; proof?: string }): Promise<boolean> {
  const { rows } = await db.raw('select acts(?, ?) as there', [id, proof ?? '']);
  return rows[0].there;
}
