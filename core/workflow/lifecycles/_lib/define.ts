import type { ActRule, Lifecycle, Relation, Role, Told, Way } from '../../lifecycle.types.ts';

/** One way of doing an act; without `roles` or `as` nothing of the kind is asked. */
export const way = <S extends string>(
  from: readonly S[] | null,
  to: S | null,
  by: { roles?: readonly Role[]; as?: readonly Relation[] } = {},
): Way<S> => ({ from, to, roles: by.roles ?? [], as: by.as ?? [] });

/** Those whose record it is hear what becomes of it; on its way, those too who are to decide next. */
export const MAKERS_TOLD: readonly Told[] = ['claimant', 'preparer'];
export const NEXT_TOLD: readonly Told[] = ['approver', ...MAKERS_TOLD];

/** A record is begun by whom it is for, or by somebody who prepares for others. */
export const beginnings = <S extends string>(to: S): Way<S>[] => [
  way(null, to, { roles: ['claimant'], as: ['claimant'] }),
  way(null, to, { roles: ['preparer'] }),
];

/** An act with what most have left out: it forbids nobody, needs nothing, is not taken back and told to nobody. */
export const act = <S extends string>(rule: Pick<ActRule<S>, 'event' | 'ways'> & Partial<ActRule<S>>): ActRule<S> => ({
  never: [],
  needs: [],
  undoneBy: null,
  tells: [],
  ...rule,
});

/** A route goes on with others when those it waits for have left, lost the role, or are stood in for: who is asked now hears of it. */
export const GO_ON = { event: 'route went on', bySystem: true, tells: ['approver', 'owner'] as const } as const;

/** A lifecycle whose states and acts are typed from what is written down. */
export const defineLifecycle = <S extends string, A extends string>(
  kind: string,
  states: readonly S[],
  acts: Readonly<Record<A, ActRule<S>>>,
): Lifecycle<S, A> => ({ kind, states, acts });
