import { longDate } from './facts.ts';
import type { Layout } from './layouts.ts';
import { money, wordsOf } from './otherWords.ts';
import { Paper } from './paper.ts';

/** Layouts that were drawn after the reader was first made, and that it has been changed for since. */

/** A hotel's account in a serif face: a ruled table with a day for every item and the house at the foot of the sheet. */
const account: Layout = (f) => {
  const p = new Paper(900, 'serif');
  const w = wordsOf(f);
  p.text(f.locale.words.receipt, 450, 30, 'middle');
  p.down(60);
  p.text(longDate(f.date, f.locale), 70, 21);
  p.text(`Nr. ${f.card}/7`, 830, 21, 'right');
  p.down(44);
  p.rule();
  f.items.forEach((item, i) => {
    p.down(16);
    p.text(String(i + 1), 80, 21);
    p.text(item.name, 150, 21);
    p.text(money(f, item.minor), 830, 21, 'right');
    p.down(20);
  });
  p.down(14);
  p.rule('double');
  p.down(20);
  p.text(w.net, 150, 21);
  p.text(money(f, f.net), 830, 21, 'right');
  p.down(32);
  p.text(`${w.tax} ${f.rate} %`, 150, 21);
  p.text(money(f, f.tax), 830, 21, 'right');
  p.down(40);
  p.text(w.due, 150, 28);
  p.text(`${f.locale.currency} ${money(f, f.total)}`, 830, 28, 'right');
  p.down(90);
  p.text(`${f.merchant} · ${f.street}`, 450, 19, 'middle');
  p.down(28);
  p.text(`${w.taxNumber} ${f.taxNumber}`, 450, 19, 'middle');
  return p;
};

/** A form of boxes, each with its label above its value, as machines of car parks and ferries print. */
const form: Layout = (f) => {
  const p = new Paper(640, 'sans');
  const w = wordsOf(f);
  p.text(f.merchant, 320, 30, 'middle');
  p.down(30);
  p.text(`${w.taxNumber}: ${f.taxNumber}`, 320, 19, 'middle');
  p.down(40);
  const cell = (x: number, width: number, label: string, value: string, size: number) => {
    p.box(x, p.y - 22, width, 76);
    p.text(label, x + 12, 17);
    p.text(value, x + width - 12, size, 'right', p.y + 38);
  };
  cell(30, 280, f.locale.words.date, f.locale.date(f.date), 24);
  cell(330, 280, w.served, `0${f.card.slice(1)}`, 24);
  p.down(96);
  cell(30, 280, `${w.tax} ${f.rate}%`, money(f, f.tax), 24);
  cell(330, 280, w.net, money(f, f.net), 24);
  p.down(96);
  cell(30, 580, w.due, `${money(f, f.total)} ${f.locale.sign}`, 34);
  p.down(92);
  p.text(f.street, 320, 18, 'middle');
  return p;
};

/** A bill of a table in a narrow face: quantities first, the sum large with its sign, tax in three columns below it. */
const tableBill: Layout = (f) => {
  const p = new Paper(400, 'narrow');
  const w = wordsOf(f);
  const { sign, currency } = f.locale;
  p.text(f.merchant, 20, 32);
  p.down(26);
  p.text(f.street, 20, 20);
  p.down(26);
  p.text(`${f.locale.date(f.date)} · ${f.time}`, 20, 22);
  p.text('# 14', 380, 22, 'right');
  p.down(34);
  for (const item of f.items) {
    p.text(`1  ${item.name}`, 20, 23);
    p.text(money(f, item.minor), 380, 23, 'right');
    p.down(30);
  }
  p.rule('dots');
  p.down(26);
  p.text(w.due.toUpperCase(), 20, 32);
  p.text(sign === currency ? `${money(f, f.total)} ${currency}` : `${sign}${money(f, f.total)}`, 380, 32, 'right');
  p.down(44);
  p.text('%', 20, 20);
  p.text(w.net, 200, 20, 'right');
  p.text(w.tax, 380, 20, 'right');
  p.down(26);
  p.text(`${f.rate},0`.replace(',', f.locale.number(12).includes(',') ? ',' : '.'), 20, 20);
  p.text(money(f, f.net), 200, 20, 'right');
  p.text(money(f, f.tax), 380, 20, 'right');
  p.down(34);
  p.text(`${w.taxNumber} ${f.taxNumber}`, 20, 20);
  return p;
};

/** A slip of a card terminal stapled to nothing: the amount first, the shop below it, the items not at all. */
const terminal: Layout = (f) => {
  const p = new Paper(420, 'typewriter');
  const w = wordsOf(f);
  p.text(w.paid, 210, 22, 'middle');
  p.down(34);
  p.text(`xxxx xxxx xxxx ${f.card}`, 210, 20, 'middle');
  p.down(40);
  p.text(`${w.due}:`, 20, 22);
  p.down(32);
  p.text(`${f.locale.currency} ${money(f, f.total)}`, 400, 28, 'right');
  p.down(36);
  p.text(`${w.tax} ${f.rate}%: ${money(f, f.tax)}`, 20, 20);
  p.down(34);
  p.text(f.merchant, 20, 22);
  p.down(26);
  p.text(f.street, 20, 18);
  p.down(30);
  p.text(`${f.locale.date(f.date)}   ${f.time}`, 20, 20);
  return p;
};

/** A shop's slip with the sum on top, bars for its number, and items with their quantity and price on a line of their own. */
const sumFirst: Layout = (f) => {
  const p = new Paper(440, 'mono');
  const w = wordsOf(f);
  p.text(`${w.due} (${f.locale.currency})`, 220, 20, 'middle');
  p.down(40);
  p.text(money(f, f.total), 220, 40, 'middle');
  p.down(44);
  p.text(f.merchant, 220, 21, 'middle');
  p.down(26);
  p.text(longDate(f.date, f.locale), 220, 19, 'middle');
  p.down(30);
  p.rule();
  for (const item of f.items) {
    p.down(8);
    p.text(item.name, 24, 19);
    p.down(24);
    p.text(`1 x ${money(f, item.minor)}`, 44, 19);
    p.text(money(f, item.minor), 416, 19, 'right');
    p.down(20);
  }
  p.rule();
  p.down(10);
  p.text(`${w.tax} ${f.rate}% ${f.locale.number(f.net)} = ${money(f, f.tax)}`, 24, 19);
  p.down(30);
  for (let x = 70; x < 370; x += 4 + (Math.floor(x / 3) % 3) * 3) p.box(x, p.y, 1, 40);
  p.down(66);
  p.text(`${w.taxNumber} ${f.taxNumber}`, 220, 18, 'middle');
  return p;
};

/** An operator's ticket across: the facts of the journey on the left, the price in a box on the right. */
const ticket: Layout = (f) => {
  const p = new Paper(980, 'sans');
  const w = wordsOf(f);
  p.text(f.merchant, 40, 32);
  p.text(f.locale.words.receipt, 940, 24, 'right');
  p.down(34);
  p.text(f.street, 40, 19);
  p.down(50);
  p.text(`${f.locale.words.date} ${f.locale.date(f.date)}`, 40, 22);
  p.text(w.due, 660, 22);
  p.text(`${money(f, f.total)} ${f.locale.currency}`, 930, 30, 'right');
  p.box(640, p.y - 34, 305, 54);
  p.down(44);
  p.text(`${f.items[0]!.name} / ${f.items[1]!.name}`, 40, 20);
  p.text(`${w.tax} ${f.rate} %`, 660, 19);
  p.text(money(f, f.tax), 930, 19, 'right');
  p.down(36);
  p.text(`${w.taxNumber} ${f.taxNumber}`, 40, 19);
  p.text(w.net, 660, 19);
  p.text(money(f, f.net), 930, 19, 'right');
  p.down(40);
  p.text(w.served + ' 7', 40, 18);
  return p;
};

/** A slip of a filling station: quantity and price of a unit first, the tax inside the sum, the house at the foot. */
const pump: Layout = (f) => {
  const p = new Paper(410, 'thermal');
  const w = wordsOf(f);
  p.text(`** ${f.locale.words.receipt} **`, 205, 22, 'middle');
  p.down(40);
  p.text(`${f.locale.date(f.date)} ${f.time}`, 20, 19);
  p.text('P 04', 390, 19, 'right');
  p.down(34);
  p.text(f.items[0]!.name, 20, 19);
  p.down(26);
  p.text(`12 x ${money(f, Math.floor(f.total / 12))}`, 40, 19);
  p.down(40);
  p.text(w.due, 20, 24);
  p.text(`${money(f, f.total)} ${f.locale.currency}`, 390, 24, 'right');
  p.down(28);
  p.text(`${f.rate}% ${w.tax}`, 20, 19);
  p.text(money(f, f.tax), 390, 19, 'right');
  p.down(28);
  p.text(w.paid, 20, 19);
  p.text(`...${f.card}`, 390, 19, 'right');
  p.down(46);
  p.text(f.merchant, 205, 20, 'middle');
  p.down(26);
  p.text(f.street, 205, 18, 'middle');
  p.down(26);
  p.text(`${w.taxNumber} ${f.taxNumber}`, 205, 18, 'middle');
  return p;
};

/** A letter that confirms a payment in sentences and repeats it in three rows. */
const letter: Layout = (f) => {
  const p = new Paper(860, 'serif');
  const w = wordsOf(f);
  p.text(f.merchant, 60, 28);
  p.down(30);
  p.text(f.street, 60, 20);
  p.down(60);
  p.text(longDate(f.date, f.locale), 800, 20, 'right');
  p.down(60);
  p.text(`${f.locale.words.receipt} ${f.card}-${f.rate}`, 60, 24);
  p.down(44);
  p.text(f.items.map((i) => i.name).join(', '), 60, 20);
  p.down(50);
  for (const [label, value] of [
    [w.net, money(f, f.net)],
    [`+ ${f.rate} % ${w.tax}`, money(f, f.tax)],
    [w.due, `${f.locale.sign} ${money(f, f.total)}`],
  ] as const) {
    p.text(label, 120, 21);
    p.text(value, 560, 21, 'right');
    p.down(34);
  }
  p.down(30);
  p.text(f.locale.words.thanks, 60, 20);
  p.down(60);
  p.text(`${w.taxNumber} ${f.taxNumber}`, 60, 17);
  return p;
};

export const LAYOUTS_SEEN: readonly Layout[] = [account, form, tableBill, terminal, sumFirst, ticket, pump, letter];
