import type { Found, Word } from '../reading.types.ts';
import { plain, type TextLine } from './lines.ts';
import type { Money } from './money.ts';
import { DATE_LABEL } from './dateWords.ts';
import { NOT_A_NAME, TAX_NUMBER_LABEL } from './vocabulary.ts';

const HEAD_LINES = 8;
const LEGAL =
  /(?<![a-z])(?:ltd|limited|plc|inc|llc|gmbh|ag|kg|as|asa|ab|oy|oyj|aps|sarl|sas|sa|srl|spa|lda|bv|nv|co|kk|e\.?k\.?)\.?$/;
const STREET =
  /\d{4,5} [a-z]|(?<![a-z])(?:street|road|avenue|square|lane|quay|str\.?|strasse|platz|rue|calle|rua|via|gate|gata|straat|vej|plaza|avda|av)(?![a-z])|co\. [a-z]+,/;

const TAX_NUMBER = new RegExp(`(?<![a-z])${TAX_NUMBER_LABEL.source}`, 'u');

/** Who sold: the most prominent of the first lines that is a name and not a greeting, an address or a number. */
export function findMerchant(lines: readonly TextLine[], amounts: readonly Money[]): Found | null {
  const firstAmount = amounts.find((a) => a.exact)?.line ?? lines.length;
  const head = lines.slice(0, Math.min(HEAD_LINES, Math.max(firstAmount, 2)));
  const heights = lines.map((l) => l.box.height).sort((a, b) => a - b);
  const usual = heights[Math.floor(heights.length / 2)] ?? 0;
  const scored = head
    .map((line, i) => ({ line, column: firstColumn(line), i }))
    .map(({ line, column, i }) => ({ line, name: nameIn(column), score: scoreOf(line, column, i, usual) }))
    .filter((s) => s.name !== null && s.score > 0);
  const [best, second] = scored.sort((a, b) => b.score - a.score);
  if (!best) return null;
  const clear = !second || best.score - second.score >= 2;
  const sure = clear && best.line.confidence >= 75 ? 'sure' : best.line.confidence >= 45 ? 'likely' : 'doubtful';
  return {
    value: best.name!,
    sure,
    spot: { page: best.line.page, box: best.line.box },
    because: 'it is the most prominent name at the head',
  };
}

/** So many letters wide is the space between two columns. */
const COLUMN_GAP = 5;

/** The words of a row up to the first wide space: a name beside "Ticket" or a date in a column of its own ends there. */
function firstColumn({ words, text }: TextLine): string {
  const letter = words.reduce((a, w) => a + w.box.width, 0) / Math.max(1, text.replace(/ /g, '').length);
  const end = words.findIndex((w, i) => i > 0 && w.box.x - rightOf(words[i - 1]!) > letter * COLUMN_GAP);
  const column = words.slice(0, end < 0 ? words.length : end).map((w) => w.text);
  return column.join(' ');
}
const rightOf = ({ box }: Word): number => box.x + box.width;

function nameIn(column: string): string | null {
  const name = column.replace(/^[^\p{L}\p{N}]+|(?<![^\p{L}\p{N}.)!])[^\p{L}\p{N}.)!]+$/gu, '').trim();
  return /\p{L}{3}/u.test(name) ? name.slice(0, 120) : null;
}

function scoreOf(line: TextLine, column: string, index: number, usual: number): number {
  const text = plain(column);
  const letters = text.replace(/[^a-z]/g, '').length;
  let score = 6 - index * 1.4;
  if (usual > 0) score += Math.max(-2, Math.min(5, (line.box.height / usual - 1) * 6));
  if (/(?<![a-z])[a-z]+ \d+[a-z]?$|^\d+ [a-z]/.test(text.trim())) score -= 3;
  if (LEGAL.test(text.trim())) score += 3;
  if (STREET.test(text)) score -= 5;
  if (NOT_A_NAME.test(text)) score -= text.split(' ').length <= 3 ? 9 : 4;
  if (DATE_LABEL.test(text) || /\d{1,2}[./:-]\d{2}/.test(text)) score -= 6;
  if (/www\.|https?:|@|(?<![a-z])(?:tel|tele(?:ph|f)one?n?|phone|tlf|fax|mobile?)(?![a-z])/.test(text)) score -= 7;
  if (TAX_NUMBER.test(text) && /\d{5,}/.test(text)) score -= 7;
  if (letters < column.replace(/\s/g, '').length * 0.6) score -= 4;
  return score;
}
