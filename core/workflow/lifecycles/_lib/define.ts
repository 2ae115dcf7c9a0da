import type { ActRule, Lifecycle, Relation, Role, Way } from '../../lifecycle.types.ts';

/** One way of doing an act; without `roles` or `as` nothing of the kind is asked. */
export const way = <S extends string>(
  from: readonly S[] | null,
  to: S | null,
  by: { roles?: readonly Role[]; as?: readonly Relation[] } = {},
): Way<S> => ({ from, to, roles: by.roles ?? [], as: by.as ?? [] });

/** A record is begun by whom it is for, or by somebody who prepares for others. */
export const beginnings = <S extends string>(to: S): Way<S>[] => [
  way(null, to, { roles: ['claimant'], as: ['claimant'] }),
  way(null, to, { roles: ['preparer'] }),
];

/** An act with what most have left out: it forbids nobody, needs nothing and is not taken back. */
export const act = <S extends string>(rule: Pick<ActRule<S>, 'event' | 'ways'> & Partial<ActRule<S>>): ActRule<S> => ({
  never: [],
  needs: [],
  undoneBy: null,
  ...rule,
});

/** A lifecycle whose states and acts are typed from what is written down. */
export const defineLifecycle = <S extends string, A extends string>(
  kind: string,
  states: readonly S[],
  acts: Readonly<Record<A, ActRule<S>>>,
): Lifecycle<S, A> => ({ kind, states, acts });
