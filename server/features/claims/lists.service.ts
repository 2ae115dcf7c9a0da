import { stringify } from 'csv-stringify/sync';
import type { OwnFilter } from '../../../contract/claims.ts';
import { fitsOwn } from '../../../contract/fitsOwn.ts';
import type { Actor, Context } from '../../platform/context.ts';
import { guardCell } from '../../platform/http/guardCell.ts';
import { selectOwnClaims } from '../../records/claims/listed.queries.ts';
import { withTides } from '../../records/claims/withTides.ts';

/** The claims a person made or has made for them, newest first. */
export async function viewOwnClaims({ db }: Pick<Context, 'db'>, actor: Actor) {
  return { claims: await withTides(db, await selectOwnClaims(db, actor.id)) };
}

const COLUMNS = ['number', 'state', 'version', 'claimant', 'purpose', 'submittedOn', 'toPay', 'currency'] as const;

/** Those of a person's own claims that are looked for, as CSV for a spreadsheet (RFC 4180). */
export async function writeOwnCsv({ db }: Pick<Context, 'db'>, actor: Actor, filter: OwnFilter): Promise<string> {
  const claims = (await selectOwnClaims(db, actor.id)).filter((claim) => fitsOwn(claim, filter));
  const rows = claims.map((claim) => COLUMNS.map((column) => guardCell(claim[column])));
  return `\uFEFF${stringify([COLUMNS as readonly string[], ...rows], { record_delimiter: 'windows' })}`;
}
