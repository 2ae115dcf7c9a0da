import { describe, expect, it } from 'vitest';
import { wordsOf } from '../../../test/fixtures/wordsOf.ts';
import { papersApart } from './papersApart.ts';
import { seemSeveral } from './seemSeveral.ts';
import type { Word } from './reading.types.ts';

const AS_OF = '2026-06-30';

const PAPERS = [
  `#   QUAYSIDE SUPPLIES LTD
    Main Street, Wexford
    12/03/2026            14:22
    Rope 10 m                        12.50
    Gloves x 2                        9.10
    TOTAL  EUR                       21.60
    VAT 23%       17.56               4.04
    Card ************4410            21.60`,
  `#   Kafé Tidevann
    Kaigata 4, 5004 Bergen
    Org.nr. 974 761 076 MVA
    14.03.2026 12:04
    2 Kaffe                          96,00
    1 Kake                           48,00
    Sum NOK                         144,00
    Herav MVA 25 %                   28,80`,
  `#   Molo Trains
    Ticket 48000017
    Date 15 Mar 2026
    Lagoon to Harbour     single
    Adult                             8.40
    Total to pay EUR                  8.40
    Thank you for travelling`,
];

/** Words of a paper that takes only a part of the page. */
const placed = (text: string, at: { x: number; y: number; width: number; height: number }): Word[] =>
  wordsOf(text).map((word) => ({
    ...word,
    box: {
      x: at.x + word.box.x * at.width,
      y: at.y + word.box.y * at.height,
      width: word.box.width * at.width,
      height: word.box.height * at.height,
    },
  }));
const LEFT = { x: 0.02, y: 0.1, width: 0.8, height: 0.5 };
const RIGHT = { x: 0.52, y: 0.13, width: 0.8, height: 0.5 };
const ABOVE = { x: 0.1, y: 0.02, width: 1.2, height: 0.42 };
const BELOW = { x: 0.12, y: 0.52, width: 1.2, height: 0.42 };

const PAIRS = PAPERS.flatMap((a) => PAPERS.filter((b) => a !== b).map((b) => [a, b] as const));

describe('papers of one page', () => {
  it.each(PAPERS)('are one where there is one', (text) => {
    expect(papersApart(wordsOf(text), AS_OF)).toBeNull();
  });
  it.each(PAIRS)('are told apart side by side', (a, b) => {
    const boxes = papersApart([...placed(a, LEFT), ...placed(b, RIGHT)], AS_OF)!;
    expect(boxes).toHaveLength(2);
    expect(boxes[0]!.x + boxes[0]!.width).toBeLessThan(boxes[1]!.x + 0.02);
  });
  it.each(PAIRS)('are told apart one below the other', (a, b) => {
    const boxes = papersApart([...placed(a, ABOVE), ...placed(b, BELOW)], AS_OF)!;
    expect(boxes).toHaveLength(2);
    expect(boxes[0]!.y + boxes[0]!.height).toBeLessThan(boxes[1]!.y);
  });
  it('are told apart where there are three', () => {
    const [a, b, c] = PAPERS as [string, string, string];
    const small = { width: 0.8, height: 0.4 };
    const words = [
      ...placed(a, { x: 0.02, y: 0.02, ...small }),
      ...placed(b, { x: 0.52, y: 0.04, ...small }),
      ...placed(c, { x: 0.1, y: 0.55, ...small }),
    ];
    expect(papersApart(words, AS_OF)).toHaveLength(3);
  });
  it('are two where one ticket was bought twice and both lie side by side', () => {
    expect(papersApart([...placed(PAPERS[2]!, LEFT), ...placed(PAPERS[2]!, RIGHT)], AS_OF)).toHaveLength(2);
  });
  it('are one where a slip of the card hangs below its bill, with a tip or without', () => {
    const slip = (total: string) => `    QUAYSIDE SUPPLIES
    12/03/2026 14:23
    VISA ************4410
    Approval code 077120 terminal 12
    TOTAL EUR                        ${total}
    Thank you`;
    for (const total of ['21.60', '24.00'])
      expect(papersApart([...placed(PAPERS[0]!, ABOVE), ...placed(slip(total), BELOW)], AS_OF)).toBeNull();
  });
});

describe('papers that cannot be told apart', () => {
  const BOTH = `Scheepswinkel Oost
    BTW-nr NL496610522B01
    25-05-2026 10:12
    Bankpas XXXXXXXXXXXX5452
    Fjaera Kro AS
    17.05.2026 21:20
    A betale NOK                    164,83
    Bankkort XXXXXXXXXXXX6960
    Org.nr NO643691033`;
  it('are several by what a paper has once', () => {
    expect(seemSeveral(wordsOf(BOTH))).toBe(true);
  });
  it('are several by two sellers’ tax numbers and two cards', () => {
    const slips = `Kaigan Mart
      Tax No T285905122
      Card ########9654
      Minas Basin Inn
      Credit card ########7856
      HST No CA987962473`;
    expect(seemSeveral(wordsOf(slips))).toBe(true);
  });
  it('are one where a single kind stands there twice', () => {
    for (const paper of PAPERS) expect(seemSeveral(wordsOf(paper))).toBe(false);
    const invoice = `Quayside Supplies Ltd
      VAT No IE6747209E
      Your VAT No NO643691033
      12/03/2026 14:22
      TOTAL EUR                      21.60
      Card ************4410`;
    expect(seemSeveral(wordsOf(invoice))).toBe(false);
    expect(seemSeveral(wordsOf(`Hotel\n1.3.2026 14:00\n3.3.2026 11:00\nTotal EUR 90.00\nCard ************4410`))).toBe(
      false,
    );
  });
});
