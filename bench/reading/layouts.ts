import { Paper } from './paper.ts';
import { longDate, type Facts } from './facts.ts';

export type Layout = (facts: Facts) => Paper;

const money = (f: Facts, minor: number): string => f.locale.number(minor);

/** A till slip with the sign beside each amount, paid with cash. */
const cashSlip: Layout = (f) => {
  const p = new Paper(430, 'typewriter');
  const { words, sign } = f.locale;
  p.text(f.merchant.toUpperCase(), 215, 25, 'middle');
  p.down(28);
  p.text(f.street, 215, 17, 'middle');
  p.down(24);
  p.text(`${words.taxNo}: ${f.taxNumber}`, 215, 16, 'middle');
  p.down(34);
  p.text(f.locale.date(f.date), 25, 18);
  p.text(f.time, 405, 18, 'right');
  p.down(26);
  p.rule('dots');
  for (const item of f.items) {
    p.down(10);
    p.text(item.name, 25, 18);
    p.text(money(f, item.minor), 405, 18, 'right');
    p.down(16);
  }
  p.down(14);
  p.rule('dots');
  p.down(14);
  p.text(`${words.total} ${sign}`, 25, 25);
  p.text(money(f, f.total), 405, 25, 'right');
  p.down(30);
  const unit = 10 ** f.locale.decimals * (f.locale.decimals === 0 ? 1000 : 50);
  const given = Math.ceil((f.total + 1) / unit) * unit;
  p.text(words.cash, 25, 18);
  p.text(money(f, given), 405, 18, 'right');
  p.down(24);
  p.text(words.change, 25, 18);
  p.text(money(f, given - f.total), 405, 18, 'right');
  p.down(28);
  p.text(`${words.tax} ${f.rate}%`, 25, 17);
  p.text(money(f, f.tax), 405, 17, 'right');
  p.down(36);
  p.text(words.thanks, 215, 17, 'middle');
  return p;
};

/** A narrow thermal slip, paid by card, tax table below. */
const cardSlip: Layout = (f) => {
  const p = new Paper(380, 'thermal');
  const { words, currency } = f.locale;
  p.text(f.merchant, 190, 26, 'middle');
  p.down(26);
  p.text(f.street, 190, 16, 'middle');
  p.down(30);
  p.text(`${words.receipt} 00${f.card}`, 20, 17);
  p.down(22);
  p.text(`${words.date}: ${f.locale.date(f.date)}  ${f.time}`, 20, 17);
  p.down(26);
  p.rule();
  for (const item of f.items) {
    p.down(8);
    p.text(`1 x ${item.name}`, 20, 18);
    p.text(money(f, item.minor), 360, 18, 'right');
    p.down(16);
  }
  p.down(12);
  p.rule('double');
  p.down(18);
  p.text(words.total, 20, 26);
  p.text(`${currency} ${money(f, f.total)}`, 360, 26, 'right');
  p.down(34);
  p.text(`${words.tax} ${f.rate}%  ${money(f, f.net)}`, 20, 17);
  p.text(money(f, f.tax), 360, 17, 'right');
  p.down(26);
  p.text(`${words.card} ************${f.card}`, 20, 17);
  p.text(money(f, f.total), 360, 17, 'right');
  p.down(22);
  p.text(`${words.taxNo} ${f.taxNumber}`, 20, 17);
  return p;
};

/** An invoice on a sheet with columns. */
const invoice: Layout = (f) => {
  const p = new Paper(820, 'sans');
  const { words, currency } = f.locale;
  p.text(f.merchant, 60, 34);
  p.down(26);
  p.text(`${f.street} · ${words.taxNo} ${f.taxNumber}`, 60, 18);
  p.down(60);
  p.text(words.receipt.toUpperCase(), 60, 26);
  p.text(`${words.date}: ${longDate(f.date, f.locale)}`, 760, 20, 'right');
  p.down(50);
  p.rule();
  for (const item of f.items) {
    p.down(14);
    p.text(item.name, 60, 20);
    p.text('1', 480, 20, 'right');
    p.text(money(f, item.minor), 760, 20, 'right');
    p.down(18);
  }
  p.down(14);
  p.rule();
  p.down(18);
  p.text(words.sub, 480, 20);
  p.text(money(f, f.net), 760, 20, 'right');
  p.down(28);
  p.text(`${words.tax} ${f.rate} %`, 480, 20);
  p.text(money(f, f.tax), 760, 20, 'right');
  p.down(34);
  p.text(`${words.total} ${currency}`, 480, 26);
  p.text(money(f, f.total), 760, 26, 'right');
  p.down(80);
  p.text(words.thanks, 60, 18);
  return p;
};

/** A till slip in a plain monospaced face, everything in one size. */
const plainSlip: Layout = (f) => {
  const p = new Paper(460, 'mono');
  const { words, sign } = f.locale;
  p.text(f.merchant, 20, 19);
  p.down(24);
  p.text(f.street, 20, 19);
  p.down(24);
  p.text(`${words.taxNo} ${f.taxNumber}`, 20, 19);
  p.down(34);
  for (const item of f.items) {
    p.text(item.name, 20, 19);
    p.text(`${money(f, item.minor)} A`, 440, 19, 'right');
    p.down(25);
  }
  p.down(8);
  p.text(words.total, 20, 19);
  p.text(`${sign} ${money(f, f.total)}`, 440, 19, 'right');
  p.down(34);
  p.text(`A ${f.rate}% ${words.tax}`, 20, 19);
  p.text(money(f, f.tax), 440, 19, 'right');
  p.down(34);
  p.text(`${f.locale.date(f.date)} ${f.time}`, 230, 19, 'middle');
  return p;
};

export const LAYOUTS: readonly Layout[] = [cashSlip, cardSlip, invoice, plainSlip];
