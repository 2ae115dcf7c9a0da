import type { ClaimInput } from '../../../../contract/claims.ts';
import type { Claim } from '../../../../core/documents/case.schema.ts';
import { settlementSum, type SettlementSum } from '../../../../core/figures/settlement/settlementSum.ts';
import { Typesetter } from './typeset.ts';

/** A paper behind the cover: what it belongs to, and its pages as they are looked at. */
export interface CoverPaper {
  says: string;
  pages: (() => Promise<Uint8Array>)[];
}

/** What of a claim goes on its cover, whoever looks at it. */
interface Cover {
  header: ClaimInput['claim'];
  claim: Claim;
  amounts: Readonly<Record<string, string | null>>;
  sum: SettlementSum;
}

function coverOf(view: ClaimInput): Cover {
  const header = view.claim;
  if ('amounts' in view) return { header, claim: view.document, amounts: view.amounts, sum: view.settlement };
  const amounts = Object.fromEntries(view.assessment.lines.map((l) => [l.id, l.claimAmount]));
  return { header, claim: view.document.claim, amounts, sum: settlementSum(view.document.claim, view.assessment) };
}

/**
 * The cover of a claim as PDF, with its papers behind it page by page, each headed by what it belongs to. Figures are those
 * of the view it is written from.
 */
export async function writeCoverSheet(
  view: ClaimInput,
  papers: readonly CoverPaper[],
  names: ReadonlyMap<string, string>,
): Promise<Uint8Array> {
  const cover = coverOf(view);
  const { number } = cover.header;
  const sheet = await Typesetter.begin(`Claim ${number}`);
  writeHead(sheet, cover);
  writeSum(sheet, cover.sum);
  writeLines(sheet, view, cover, names);
  for (const { says, pages } of papers)
    for (const [i, page] of pages.entries()) {
      sheet.nextPage();
      sheet.paragraph(`${number}: ${says}`, { weight: 'strong' });
      sheet.paragraph(pages.length > 1 ? `page ${i + 1} of ${pages.length}` : 'one page', { quiet: true, size: 8 });
      sheet.gap(6);
      await sheet.picture(await page());
    }
  return sheet.finish(`Claim ${number}, version ${cover.header.version}, ${cover.header.claimant}`);
}

function writeHead(sheet: Typesetter, { header }: Cover): void {
  const { purpose, claimant, preparer, approvedBy, deciders, entityName } = header;
  sheet.paragraph(`Claim ${header.number}`, { size: 18, weight: 'strong' });
  sheet.paragraph(purpose, { size: 12 });
  sheet.gap(6);
  const period = [header.tripFrom, header.tripTo].filter(Boolean).join(' to ');
  const facts: [string, string | null][] = [
    ['Claimant', claimant],
    ['Prepared by', preparer === claimant ? null : preparer],
    ['Entity', entityName],
    ['Approved by', approvedBy.join(', ') || null],
    ['With', deciders.join(', ') || null],
    ['Where', [header.place, header.country].filter(Boolean).join(', ')],
    ['When', period],
    ['Reference', header.reference],
    ['Handed in', header.submittedOn],
    ['State', `${header.state}, version ${header.version}`],
    ['Note', header.note],
    ['For finance', header.financeNote],
  ];
  for (const [name, said] of facts)
    if (said)
      sheet.row([
        { text: name, width: 90, quiet: true },
        { text: said, width: 417 },
      ]);
}

const SUM: [keyof SettlementSum, string][] = [
  ['claimed', 'Claimed'],
  ['companyPaid', 'less paid by the company'],
  ['private', 'less private'],
  ['advances', 'less advances'],
  ['toPay', 'To pay'],
];
function writeSum(sheet: Typesetter, sum: SettlementSum): void {
  sheet.gap(8);
  sheet.rule();
  for (const [field, name] of SUM) {
    const weight = field === 'toPay' ? 'strong' : 'plain';
    sheet.row([
      { text: name, width: 200, weight },
      { text: `${sum[field] ?? 'not known'} ${sum.currency}`, width: 140, right: true, weight },
    ]);
  }
}

const WIDTHS = [28, 56, 160, 96, 58, 76, 33];
const HEADS = ['Line', 'Date', 'Merchant', 'Category', 'Paid', 'Amount', 'Paper'];
const BESIDE = 84;
function writeLines(
  sheet: Typesetter,
  view: ClaimInput,
  { claim, amounts }: Cover,
  names: ReadonlyMap<string, string>,
): void {
  sheet.gap(10);
  sheet.row(HEADS.map((text, i) => ({ text, width: WIDTHS[i]!, quiet: true, size: 8, right: i === 5 })));
  sheet.rule();
  for (const line of claim.lines) {
    const cells = [
      line.id,
      line.date,
      line.merchant ?? '',
      line.personal ? 'private' : (names.get(line.category ?? '') ?? `${line.items?.length ?? 0} items`),
      line.paidBy === 'own' ? 'own money' : line.paidBy === 'card' ? `card ${line.card ?? ''}`.trim() : 'centrally',
      `${line.amount} ${line.currency}`,
      view.receipts[line.id] ? 'yes' : '',
    ];
    sheet.row(cells.map((text, i) => ({ text, width: WIDTHS[i]!, size: 8.5, right: i === 5 })));
    if (line.description) sheet.paragraph(line.description, { size: 8, quiet: true, indent: BESIDE });
    if (line.currency !== claim.currency)
      sheet.row([
        { text: '', width: 322 },
        {
          text: `= ${amounts[line.id] ?? 'not known'} ${claim.currency}`,
          width: 152,
          size: 8,
          quiet: true,
          right: true,
        },
      ]);
  }
}
