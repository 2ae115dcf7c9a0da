import sharp from 'sharp';
import type { ClaimInput } from '../../../../contract/claims.ts';
import type { Context } from '../../../platform/context.ts';
import type { Db } from '../../../platform/db/connect.ts';
import { Refused } from '../../../platform/http/refusal.ts';
import { selectAttachmentPage, selectAttachmentPlace } from '../../../records/attachments/attachments.queries.ts';
import { selectCategories } from '../../../records/book/book.queries.ts';
import { selectPage } from '../../../records/receipts/receipts.queries.ts';
import { writeCoverSheet, type CoverPaper } from './coverSheet.ts';

const MOST_PAGES = 400;
const QUALITY = 80;

/** The cover of a claim with the papers its viewer sees, as PDF. Refused when there are too many pages for one file. */
export async function coverSheetOf({ db }: Pick<Context, 'db'>, view: ClaimInput): Promise<Uint8Array> {
  const papers = [...receiptsOf(db, view), ...attachmentsOf(db, view)];
  const pages = papers.reduce((a, p) => a + p.pages.length, 0);
  if (pages > MOST_PAGES) throw new Refused('many-pages', { pages: String(pages), most: String(MOST_PAGES) });
  const names = new Map((await selectCategories(db)).map((c) => [c.id, c.name ?? c.id]));
  return writeCoverSheet(view, papers, names);
}

/** Each receipt once, with the lines it belongs to, in the order of the first of them. */
function receiptsOf(db: Db, { receipts, ...view }: ClaimInput): CoverPaper[] {
  const claim = 'amounts' in view ? view.document : view.document.claim;
  const ids = [...new Set(claim.lines.flatMap((l) => (receipts[l.id] ? [receipts[l.id]!.id] : [])))];
  return ids.map((id) => {
    const lines = claim.lines.filter((l) => receipts[l.id]?.id === id);
    const { pages } = receipts[lines[0]!.id]!;
    const merchant = lines[0]!.merchant ? `, ${lines[0]!.merchant}` : '';
    return {
      says: `receipt of line${lines.length > 1 ? 's' : ''} ${lines.map((l) => l.id).join(', ')}${merchant}`,
      pages: pages.map(
        ({ turns }, i) =>
          async () =>
            upright(await selectPage(db, BigInt(id), i + 1), turns),
      ),
    };
  });
}

const attachmentsOf = (db: Db, { attachments }: ClaimInput): CoverPaper[] =>
  attachments.map(({ id, name, pages }) => ({
    says: `file ${name}`,
    pages: pages.map((_, i) => async () => {
      const { sha256 } = (await selectAttachmentPlace(db, BigInt(id)))!;
      return upright(await selectAttachmentPage(db, sha256, i + 1), 0);
    }),
  }));

/** A page as it was drawn when it came, turned upright; what people sent is never opened here. */
async function upright(page: { bytes: Buffer } | undefined, turns: number): Promise<Uint8Array> {
  return sharp(page!.bytes)
    .rotate(turns * 90)
    .flatten({ background: 'white' })
    .jpeg({ quality: QUALITY })
    .toBuffer();
}
