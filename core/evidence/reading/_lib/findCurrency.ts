import { minorUnits } from '../../../numbers/minorUnits.ts';
import type { Found, Sureness, Word } from '../reading.types.ts';
import { confidenceAt, plain, spotAt, type TextLine } from './lines.ts';
import { byCountry } from './tellCurrency.ts';
import { STRONG_TOTAL, TOTAL } from './vocabulary.ts';

/** Signs that belong to one currency (sure), or to several of which one is most usual (likely). From memory. */
const SIGNS: readonly [RegExp, string, Sureness][] = [
  [/R\$/, 'BRL', 'sure'],
  [/€/, 'EUR', 'sure'],
  [/£/, 'GBP', 'sure'],
  [/¥|￥|円/, 'JPY', 'likely'],
  [/(?<![A-Za-z])K[Ss]h(?![A-Za-z])/, 'KES', 'sure'],
  [/(?<![A-Za-z])(?:BD|B\.D\.)(?= ?\d)/, 'BHD', 'likely'],
  [/(?<![A-Za-z])zł/, 'PLN', 'sure'],
  [/(?<![A-Za-z])Kč/, 'CZK', 'sure'],
  [/(?<![A-Za-z])Ft(?![A-Za-z])/, 'HUF', 'likely'],
  // francs are written so in Switzerland alone today
  [/(?<![A-Za-z])(?:S?[Ff]r)\.(?= ?\d)/, 'CHF', 'likely'],
  [/₹/, 'INR', 'sure'],
  [/₩/, 'KRW', 'sure'],
  [/(?<![A-Za-z])(?:A|AU)\$/, 'AUD', 'sure'],
  [/(?<![A-Za-z])(?:C|CA)\$/, 'CAD', 'sure'],
  [/\$/, '$', 'likely'],
];
/** Confidence from which a code or a sign is taken as it was recognised. */
const LEGIBLE = 60;

interface Seen extends Found {
  weight: number;
}

/** The currency of a document: its code beside an amount, a sign, or the country it comes from. Never guessed from nothing. */
export function findCurrency(lines: readonly TextLine[]): Found | null {
  const seen = ofOneDollar([
    ...lines.flatMap(codesIn),
    ...lines.flatMap(signsIn),
    ...lines.flatMap((_, i) => headOf(lines, i)),
  ]);
  const totals = new Map<string, number>();
  for (const s of seen) totals.set(s.value, (totals.get(s.value) ?? 0) + s.weight);
  const [best, second] = [...totals].sort((a, b) => b[1] - a[1]);
  if (!best) return byCountry(lines);
  const first = seen.filter((s) => s.value === best[0]).sort((a, b) => b.weight - a.weight)[0]!;
  const contested = second !== undefined && second[1] * 2 > best[1];
  return { value: first.value, spot: first.spot, because: first.because, sure: contested ? 'doubtful' : first.sure };
}

/** A dollar sign beside a code of some dollar is of that one. */
function ofOneDollar(seen: readonly Seen[]): Seen[] {
  const dollar = seen.find((s) => DOLLARS.has(s.value))?.value;
  return dollar ? seen.map((s) => (s.value === '$' ? { ...s, value: dollar } : s)) : [...seen];
}

const DOLLARS = new Set(['USD', 'CAD', 'AUD', 'NZD', 'SGD', 'HKD', 'MXN', 'TWD', 'CLP', 'COP', 'ARS']);

/** A code or sign that heads a column of amounts, on a line without figures. */
function headOf(lines: readonly TextLine[], at: number): Seen[] {
  const line = lines[at]!;
  if (/\d/.test(line.text)) return [];
  return line.words.flatMap((word) => {
    const named = /^[([]?(?:in )?([A-Z]{3}|€|£)[)\]]?$/.exec(word.text)?.[1];
    const code = named === '€' ? 'EUR' : named === '£' ? 'GBP' : named;
    if (!code || !USUAL.has(code) || amountsBelow(lines, at, word) < 2) return [];
    const sure = word.confidence >= LEGIBLE ? ('sure' as const) : ('likely' as const);
    const because = 'it heads the column of the amounts';
    return [{ value: code, sure, spot: { page: word.page, box: word.box }, because, weight: 2 }];
  });
}

function amountsBelow(lines: readonly TextLine[], at: number, head: Word): number {
  const { x, width } = head.box;
  const below = lines.slice(at + 1).filter((line) => line.page === head.page);
  return below.filter((line) =>
    line.words.some(
      (w) => /\d[.,]\d{2,3}$/.test(w.text) && w.box.x < x + width + 0.05 && x - 0.05 < w.box.x + w.box.width,
    ),
  ).length;
}

const isTotal = (line: TextLine): boolean => {
  const text = plain(line.text);
  return STRONG_TOTAL.test(text) || TOTAL.test(text);
};

function codesIn(line: TextLine): Seen[] {
  return [...line.text.matchAll(/(?<![A-Za-z])([A-Z]{3})(?![A-Za-z])/g)].flatMap((match) => {
    const code = match[1]!;
    if (minorUnits(code) === null) return [];
    const before = line.text.slice(0, match.index);
    const after = line.text.slice(match.index + 3);
    const beside = /\d[\s(]*$/.test(before) || /^[\s):=]*[-−]?\d/.test(after);
    const labelled = /currency|wahrung|devise|moneda|moeda|valuta/.test(plain(before));
    const alone = (isTotal(line) || (/\($/.test(before) && /^\)/.test(after))) && USUAL.has(code);
    if (!beside && !labelled && !alone) return [];
    if (!USUAL.has(code) && !labelled) return [];
    const confidence = confidenceAt(line, match.index, match.index + 3);
    return [
      {
        value: code,
        sure: confidence >= LEGIBLE ? ('sure' as const) : ('likely' as const),
        spot: spotAt(line, match.index, match.index + 3),
        because: 'its code stands beside an amount',
        weight: isTotal(line) ? 4 : 2,
      },
    ];
  });
}

/** Codes that are not also words people print in capitals. */
const USUAL = new Set(
  'EUR USD GBP JPY CHF SEK NOK DKK PLN CZK HUF RON BGN ISK CAD AUD NZD SGD HKD CNY KRW INR ZAR KES TZS UGX NGN GHS EGP MAD TND BHD KWD OMR JOD QAR SAR AED ILS BRL MXN CLP COP PEN ARS THB MYR IDR PHP VND TWD RSD UAH'.split(
    ' ',
  ),
);

function signsIn(line: TextLine): Seen[] {
  const kroner = nordicIn(line);
  const found = SIGNS.find(([pattern]) => pattern.test(line.text));
  const match = found?.[0].exec(line.text);
  if (!found || !match) return kroner;
  const legible = confidenceAt(line, match.index, match.index + match[0].length) >= LEGIBLE;
  return [
    ...kroner,
    {
      value: found[1],
      sure: legible ? found[2] : 'doubtful',
      spot: spotAt(line, match.index, match.index + match[0].length),
      because: `the sign ${match[0]} stands in it`,
      weight: isTotal(line) ? 3 : 1,
    },
  ];
}

function nordicIn(line: TextLine): Seen[] {
  const match = /(?<![A-Za-z])[Kk]r\.?(?=[\s\d]|$)/.exec(line.text);
  if (!match || !/\d/.test(line.text)) return [];
  return [
    {
      value: 'kr',
      sure: 'likely',
      spot: spotAt(line, match.index, match.index + 2),
      because: 'kroner, by its country',
      weight: 1,
    },
  ];
}
