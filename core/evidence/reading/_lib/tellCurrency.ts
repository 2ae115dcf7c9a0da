import type { Found } from '../reading.types.ts';
import { plain, type TextLine } from './lines.ts';

const NORDIC: readonly [RegExp, string][] = [
  [/\b(?:mva|norge|norway|foretaksregisteret|oslo|bergen|trondheim)\b/, 'NOK'],
  [/\b(?:danmark|denmark|cvr|kobenhavn)\b/, 'DKK'],
  [/\b(?:sverige|sweden|org\.? ?nr|kvitto|stockholm|moms)\b/, 'SEK'],
];
/** Words and number prefixes of countries that pay in euro. */
const EURO =
  /\b(?:ireland|eire|dublin|deutschland|germany|berlin|hamburg|france|paris|espana|madrid|portugal|lisboa|porto|italia|roma|nederland|amsterdam|belgie|suomi|helsinki|osterreich|wien)\b|(?:^|[^a-z])(?:ie|de|fr|es|pt|it|nl|be|at|fi)\d{8,9}/;
const OTHERS: readonly [RegExp, string][] = [
  [/\b(?:united kingdom|england|scotland|wales|london)\b/, 'GBP'],
  [/\b(?:usa|united states)\b/, 'USD'],
  [/\b(?:japan|tokyo|kyushu)\b/, 'JPY'],
  [/\b(?:schweiz|suisse|svizzera|switzerland|zurich)\b/, 'CHF'],
  [/\b(?:kenya|nairobi|mombasa)\b/, 'KES'],
  [/\b(?:bahrain|manama)\b/, 'BHD'],
  [/\b(?:canada)\b/, 'CAD'],
];

/** Words of countries that pay in a dollar, and of their taxes and registers. From memory. */
const DOLLAR_WORDS: readonly [RegExp, string][] = [
  [/\b(?:hst|pst|qst|tvq|tps|canada|ontario|quebec|toronto|vancouver|montreal|calgary|ottawa)\b/, 'CAD'],
  [/\b(?:abn|australia|sydney|melbourne|brisbane|perth|adelaide)\b/, 'AUD'],
  [/\b(?:nzbn|new zealand|aotearoa|auckland|wellington|christchurch)\b/, 'NZD'],
  [/\b(?:uen|singapore)\b/, 'SGD'],
  [/\b(?:hong kong|kowloon)\b/, 'HKD'],
  [/\b(?:rfc|mexico|cdmx)\b/, 'MXN'],
  [/\b(?:sales tax|united states|usa|ein)\b/, 'USD'],
];
/** Rates of the goods and services tax by which its countries differ; from memory. */
const GST_RATES: Readonly<Record<string, string>> = { 5: 'CAD', 10: 'AUD', 15: 'NZD', 9: 'SGD' };

/** Kroner and dollars are told apart by the words around them; a dollar that nothing tells is the most usual one. */
export function tellCurrency(found: Found | null, lines: readonly TextLine[]): Found | null {
  if (found?.value === '$') return tellDollar(found, lines);
  return tellKroner(found, lines);
}

function tellDollar(found: Found, lines: readonly TextLine[]): Found {
  const text = plain(lines.map((l) => l.text).join('\n'));
  const [, code] = DOLLAR_WORDS.find(([pattern]) => pattern.test(text)) ?? [];
  const rate = /\bgst\b[^%\n]{0,12}?(\d{1,2})(?:\.0)? ?%|(\d{1,2})(?:\.0)? ?% gst\b/.exec(text);
  const byRate = rate ? GST_RATES[rate[1] ?? rate[2]!] : undefined;
  return { ...found, value: code ?? byRate ?? 'USD', sure: found.sure === 'sure' ? 'likely' : found.sure };
}

/** Kroner are told apart by the words around them. */
function tellKroner(found: Found | null, lines: readonly TextLine[]): Found | null {
  if (found?.value !== 'kr') return found;
  const text = plain(lines.map((l) => l.text).join('\n'));
  const [, code] = NORDIC.find(([pattern]) => pattern.test(text)) ?? [];
  return code ? { ...found, value: code } : null;
}

export function byCountry(lines: readonly TextLine[]): Found | null {
  const text = plain(lines.map((l) => l.text).join('\n'));
  const code = EURO.test(text) ? 'EUR' : [...OTHERS, ...NORDIC].find(([pattern]) => pattern.test(text))?.[1];
  return code ? { value: code, sure: 'doubtful', spot: null, because: 'the country it comes from pays in it' } : null;
}
