import type { Actor, Context } from '../../platform/context.ts';
import { selectOwnClaims } from '../../records/claims/listed.queries.ts';
import { withTides } from '../../records/claims/withTides.ts';

/** The claims a person made or has made for them, newest first. */
export async function viewOwnClaims({ db }: Pick<Context, 'db'>, actor: Actor) {
  return { claims: await withTides(db, await selectOwnClaims(db, actor.id)) };
}
