/** Month names by their first letters, without accents: English, German, French, Spanish, Portuguese, Italian, Dutch, Nordic. */
const MONTHS: readonly [RegExp, number][] = [
  [/^(?:jan|ene|gen)/, 1],
  [/^(?:feb|fev)/, 2],
  [/^(?:mar|mrz|maa|mrt)/, 3],
  [/^(?:apr|abr|avr)/, 4],
  [/^(?:may|mai|maj|mei|mag)/, 5],
  [/^(?:jun|juin|giu)/, 6],
  [/^(?:jul|juil|lug)/, 7],
  [/^(?:aug|ago|aou)/, 8],
  [/^(?:sep|set)/, 9],
  [/^(?:oct|okt|out|ott)/, 10],
  [/^(?:nov)/, 11],
  [/^(?:dec|dez|des|dic)/, 12],
];
const FULL =
  /^(?:january|januar|janvier|enero|janeiro|gennaio|januari|february|februar|fevrier|febrero|fevereiro|febbraio|februari|march|marz|mars|marzo|marco|maart|april|avril|abril|aprile|may|mai|mayo|maio|maggio|mei|maj|june|juni|juin|junio|junho|giugno|july|juli|juillet|julio|julho|luglio|august|aout|agosto|augustus|augusti|september|septembre|septiembre|setembro|settembre|october|oktober|octobre|octubre|outubro|ottobre|november|novembre|noviembre|novembro|december|dezember|desember|decembre|diciembre|dezembro|dicembre|[a-z]{3,4}\.?)$/;

/**
 * The number of a month from its name or its usual abbreviation in lower case without accents, or null. "marz" → 3; "okt" →
 * 10; "marble" → null.
 */
export function monthOf(word: string): number | null {
  if (!FULL.test(word)) return null;
  return MONTHS.find(([pattern]) => pattern.test(word))?.[1] ?? null;
}
