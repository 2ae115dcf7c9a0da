/** What people do in an organisation; one person may hold several roles. */
export const ROLES = [
  'claimant',
  'preparer',
  'approver',
  'reviewer',
  'controller',
  'administrator',
  'auditor',
] as const;
/** Those who look at claims for the organisation. */
export const FINANCE: readonly Role[] = ['reviewer', 'controller', 'auditor'];
export type Role = (typeof ROLES)[number];
/** Those who may be named to decide about a record: who looks at everything decides nothing, and neither do its makers. */
export const DECIDERS = ['approver', 'reviewer', 'controller', 'administrator'] as const satisfies readonly Role[];

/** The entity of what belongs to the whole organisation: only a role held for every entity reaches it. */
export const EVERY_ENTITY = '*';

/**
 * Who somebody is to one record; several may be the same person. `approver` is everybody who decides now, `decider` who
 * decided last as long as nobody did anything since, `owner` whom a thing belongs to, or who is asked about a code of theirs,
 * `questioned` who is asked something that they have not answered.
 */
export const RELATIONS = [
  'claimant',
  'preparer',
  'approver',
  'decider',
  'clearer',
  'owner',
  'questioned',
  'holder',
  'maker',
] as const;
export type Relation = (typeof RELATIONS)[number];

/** What has to be said with an act: why, by when, or what one thinks of it. */
export type Need = 'reason' | 'date' | 'comment';

/** A setting that decides whether a relation forbids an act. */
export type ApartSetting = 'clearing-and-posting-apart';

/** One way of doing an act: from which states, to which, by whom. `to: null` leaves the state as it is. */
export interface Way<State extends string> {
  /** null: the record is made by the act. */
  from: readonly State[] | null;
  to: State | null;
  /** One of these roles, held for the record's entity; empty: none is needed. */
  roles: readonly Role[];
  /** One of these relations to the record; empty: none is needed. */
  as: readonly Relation[];
}

/**
 * Who hears of an act besides who did it: who is what to the record afterwards (of approvers and owners only those who are asked
 * anew), or whoever left events of a kind on it before.
 */
export type Told = 'claimant' | 'preparer' | 'approver' | 'owner' | 'questioned' | { did: string };

export interface ActRule<State extends string> {
  ways: readonly Way<State>[];
  /** Relations that forbid the act, whatever the role. */
  never: readonly Relation[];
  /** Done by the application by itself, and by nobody. */
  bySystem?: true;
  /** A relation that forbids the act as long as a setting is on. */
  apart?: { relation: Relation; setting: ApartSetting };
  needs: readonly Need[];
  /** The act that takes this one back; null when nothing does. */
  undoneBy: string | null;
  /** What the event is called that the act leaves. */
  event: string;
  tells: readonly Told[];
}

/** What may happen to a kind of record: its states, and its acts. */
export interface Lifecycle<State extends string = string, Act extends string = string> {
  kind: string;
  states: readonly State[];
  acts: Readonly<Record<Act, ActRule<State>>>;
}

/** A record as an act finds it. `people` names who is what to it, one or several; null and missing are nobody. */
export interface ActRecord<State extends string = string> {
  state: State | null;
  entity: string | null;
  people: Partial<Record<Relation, string | readonly string[] | null>>;
}

/** Who acts. `holds` says whether a role is theirs for an entity (null: for any). */
export interface ActingPerson {
  id: string;
  /** Whose substitute they are where an entity is today: where those decide, they may. */
  standsFor?: ((entity: string | null) => readonly string[]) | undefined;
  holds(role: Role, entity: string | null): boolean;
}
