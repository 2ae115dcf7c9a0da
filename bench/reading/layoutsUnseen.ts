import { longDate } from './facts.ts';
import type { Layout } from './layouts.ts';
import { money, wordsOf } from './otherWords.ts';
import { Paper } from './paper.ts';

/**
 * Layouts drawn to see how the reader reads what it was not made with. Once the reader has been
 * changed for what they showed they move to layoutsSeen.ts, and new ones are due here.
 */

/** A stub torn from a block: two labels a line, the number of the stub large, the sum between two rules at the end. */
const stub: Layout = (f) => {
  const p = new Paper(560, 'sans');
  const w = wordsOf(f);
  p.text(f.merchant, 30, 24);
  p.text(`No ${f.card}`, 530, 34, 'right');
  p.down(28);
  p.text(`${f.street}`, 30, 17);
  p.down(26);
  p.text(`${w.taxNumber} ${f.taxNumber}`, 30, 17);
  p.down(44);
  p.text(`${f.locale.words.date}:`, 30, 19);
  p.text(longDate(f.date, f.locale), 140, 19);
  p.text(`${w.served}: M.`, 530, 19, 'right');
  p.down(40);
  for (const item of f.items) {
    p.text(`- ${item.name}`, 30, 19);
    p.text(money(f, item.minor), 530, 19, 'right');
    p.down(30);
  }
  p.rule();
  p.down(20);
  p.text(`${w.due} (${f.locale.words.tax} ${f.rate}% = ${money(f, f.tax)})`, 30, 19);
  p.text(`${money(f, f.total)} ${f.locale.sign}`, 530, 24, 'right');
  p.down(16);
  p.rule();
  p.down(20);
  p.text(w.paid, 30, 18);
  return p;
};

/** A narrow strip of a kiosk, all in the middle, without rules; the tax is in a sentence. */
const kiosk: Layout = (f) => {
  const p = new Paper(340, 'narrow');
  const w = wordsOf(f);
  const { currency } = f.locale;
  p.text(f.locale.words.thanks, 170, 20, 'middle');
  p.down(36);
  p.text(f.merchant, 170, 30, 'middle');
  p.down(26);
  p.text(f.street, 170, 20, 'middle');
  p.down(40);
  for (const item of f.items) {
    p.text(`${item.name} ... ${money(f, item.minor)}`, 170, 22, 'middle');
    p.down(28);
  }
  p.down(14);
  p.text(`${w.due}: ${currency} ${money(f, f.total)}`, 170, 27, 'middle');
  p.down(34);
  p.text(`${f.rate}% ${w.tax}: ${money(f, f.tax)}`, 170, 20, 'middle');
  p.down(34);
  p.text(`${f.locale.date(f.date)} ${f.time}`, 170, 22, 'middle');
  p.down(28);
  p.text(`${w.taxNumber} ${f.taxNumber}`, 170, 18, 'middle');
  return p;
};

export const LAYOUTS_UNSEEN: readonly Layout[] = [stub, kiosk];
