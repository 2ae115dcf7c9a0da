/** What a heading says that its column holds; some of it no field of a charge is read from. */
export type Said =
  | 'date'
  | 'purchased'
  | 'valueDate'
  | 'amount'
  | 'debit'
  | 'credit'
  | 'originalAmount'
  | 'balance'
  | 'beside'
  | 'currency'
  | 'originalCurrency'
  | 'side'
  | 'merchant'
  | 'words'
  | 'about'
  | 'reference'
  | 'categoryCode';

/**
 * Words of headings in the languages of banks (common practice; from memory), without accents; the first that holds counts, so
 * what is said more closely stands above: a balance date is a balance, an amount in the currency of the purchase an original one.
 */
const WORDS: [Said, RegExp][] = [
  ['categoryCode', /\bmcc\b|category code|branch(?:en)?kode|業種コード/],
  [
    'about',
    /card ?holder|inhaber|kort ?holder|innehavare|kortinnehaver|titulaire|titular|intestatario|houder|employee|利用者|会員|haltija|posiadacz|drzitel/,
  ],
  [
    'about',
    /status|etat\b|estado|^stato|状態|stav\b|allapot|countr|^land$|^lande?kode|pays\b|pais\b|paese|国|^orszag|city|^ort$|^stad$|^by$|ville|ciudad|citta|plaats|mesto|miasto|varos|categor|kategor|分類|branche/,
  ],
  [
    'about',
    /card|kart(?:e|en|y|a)|^kort|\bkort\b|carte|tarjeta|cartao|carta|kaart|カード|^(?:account|konto|compte|cuenta|conta|rekening|szamla|ucet|rachunek)\b|kontonummer|account n|rekeningnummer|口座|^iban|^bic/,
  ],
  ['balance', /balance|saldo|solde|kontostand|egyenleg|残高|zustatek|^bal\b|stan konta/],
  [
    'beside',
    /\bfee|gebuhr|gebyr|\bavgift|frais|comision|commission|comissao|手数料|poplat|oplat|\bdij\b|vat\b|mwst|\bmva\b|\bmoms\b|\btva\b|\biva\b|btw|dph|消費税|\btax\b|points|punkt|cashback|\bkosten/,
  ],
  [
    'beside',
    /(?:exchange|conversion).{0,3}rate|\brate\b|kurs\b|kurz\b|cambio|taux|tasa\b|レート|koers|arfolyam|umrechnung|palvelumaksu|prowizja|jutalek|entgelt|\btaxa\b|charge$|poplatek/,
  ],
  [
    'originalCurrency',
    /(?:original|foreign|transaction|purchase|merchant|local|fremd|ursprung\S*|origine|origen|orig\S*|kop\S*|kjop\S*|oprindelig|opprinnelig|vreemde|eredeti).{0,14}(?:currency|ccy|wahrung|valuta|devise|moneda|moeda|divisa|waluta|mena|deviza)|fremdwahrung|valutasort|(?:currency|wahrung|valuta|devise|moneda|moeda|divisa).{0,6}(?:orig|foreign|fremd|local)|現地通貨(?!.*額)|外貨コード|(?:oorspronkelijk\S*|alkuperain\S*|oryginaln\S*|utenlandsk|udenlandsk|utlandsk|eredeti).{0,4}(?:valuta|valuutta|waluta|deviza|penznem)|(?:waluta|valuutta|penznem).{0,4}(?:oryginaln|alkuperain)/,
  ],
  [
    'originalAmount',
    /(?:original|foreign|local|merchant|fremd\S*|ursprung\S*|origin\S*|origen|oprindelig\S*|opprinnelig\S*|eredeti|puvodni|oryginaln\S*).{0,14}(?:amount|betrag|belop|belob|belopp|montant|importe|importo|valor|bedrag|osszeg|castka|kwota)|(?:amount|betrag|belop|belopp|belob|montant|importe|importo|valor|bedrag).{0,16}(?:foreign|original|currency|fremd|ursprung|i valuta|valuta|devise|divisa|moneda|moeda|origin|orig|local)|^foreign|utlandsk|utenlandsk|udenlandsk|現地(?:通貨)?額|外貨|(?:oorspronkelijk|alkuperain\S*|oryginaln\S*).{0,14}(?:bedrag|summa|maara|kwota)|(?:kwota|maara|summa|castka|bedrag).{0,4}(?:oryginaln|puvodn|alkuper|w walucie|valuutassa|v mene|vreemde)/,
  ],
  [
    'side',
    /debit.{0,3}credit|credit.{0,3}debit|^d.?c$|^dr.?cr$|^cr.?dr$|soll.{0,3}haben|^s.?h$|^(?:transaction )?type$|^(?:debit|credit).{0,4}indicator$|^sign$|af.{0,2}bij|vorzeichen|^typ$|^tipo$|^art$|^soort$|区分|debe.{0,3}haber|irany|suunta|rodzaj|^sens$|^segno$|umsatzart|^laji$|^tyyppi$|^tipus$|種別|debet.{0,3}kredit|^d.?. ?[hakc]$/,
  ],
  [
    'purchased',
    /purchase|transaction ?(?:date|day)|trans\.? ?date|kauf(?:datum|tag)|kjops?dato|kopdatum|kobsdato|data da (?:compra|transac)|date d.?achat|date de (?:la )?(?:transaction|l.?operation)|date operation|fecha de (?:compra|operacion|la operacion)|fecha operacion|data (?:dell.?)?(?:operazione|acquisto)|transactiedatum|aankoopdatum|transaktions?(?:datum|dato)|belegdatum|umsatz(?:datum|tag)|利用日|vasarlas|datum transakce|data (?:transakcji|operacji)|ostopaiva|tapahtumapaiva|^day of purchase/,
  ],
  [
    'valueDate',
    /value (?:date|day)|^valuta(?:datum|dato|dag)?$|valuta ?(?:datum|dato)|wert(?:stellung|datum)?|date (?:de )?valeur|fecha (?:de )?valor|data[ -]?valor|data valuta|rente(?:datum|dato)|ertek(?:nap)?|arvopaiva|data waluty|起算日|f\. valor|valor(?:dato|datum)|valutering|^valeur$|valuutapaiva/,
  ],
  [
    'credit',
    /\bcredit|haben|gutschrift|credito|paid in|money in|innbetal|^inn\b|^ind\b|^in$|^bij$|abono|haber|avere|entrat[ae]|recette|入金|返金|uznan|jovairas|bijschrijving|insattning|indsat|receb|panot?|wplat|accredit|kredit|hyvitys/,
  ],
  [
    'debit',
    /\bdebit|soll\b|belastung|debito|paid out|money out|^out$|^ut\b|^ud\b|^af$|cargo|\bdebe\b|^dare$|uscit[ae]|depense|出金|支払(?!日|先)|obciaz|terheles|afschrijving|uttag|havet|otto$|withdrawn|wyplat|haevet|veloitus|addebit|\bdebet/,
  ],
  [
    'amount',
    /amount|betrag|belop|belob|belopp|montant|importe|valor\b|^valor|importo|bedrag|summa|^sum\b|umsatz$|金額|利用額|ご利用額|額$|osszeg|castka|kwota|maara|charged|^total|price|spent/,
  ],
  [
    'date',
    /book|buchung|bokfor|bogfor|posting|posted|\bdate\b|date$|^date|datum|dato|fecha|^data|\bdata\b|処理日|計上日|日付|年月日|日$|paiva|kirjaus|konyvel|datuma|ksiegowani|zauctov|^day$|^dag$|^tag$|^jour|^when|^pvm|^bogfort|^bokfort|^bokford|^gebucht|contab|compta|imputa/,
  ],
  [
    'currency',
    /currency|\bccy\b|^cur\b|wahrung|valuta|devise|moneda|moeda|divisa|waluta|^mena|deviza|通貨|valyuta|muntsoort|valuutta|penznem|monnaie|\bmunt\b/,
  ],
  [
    'merchant',
    /merchant|payee|handler|haendler|comerci|commer[cç]|esercente|\bnaam|\bname|^navn|^namn|^nom\b|nombre|^nome|butik|brukersted|salgssted|店|加盟店|支払先|beneficia|empfang|counter ?part|tegenpartij|forretning|kereskedo|obchodnik|kontrahent|myyja|saaja|establecimiento|where|shop|supplier|vendor/,
  ],
  [
    'words',
    /descri|details?\b|detalj|\btext|tekst|beskriv|omschrijving|libelle|concepto|verwendung|zweck|motivo|causale|narrati|memo|摘要|内容|leiras|popis|opis|mededeling|motif|selite|kozlemeny|vorgang|transaction$|betreff|particulars|payment to/,
  ],
  [
    'reference',
    /\bref|referen|\bid$|\bid\b|number|nummer|numero|\bn[or]\.?$|^nr\b|bilag|beleg|verifik|voucher|番号|伝票|azonosit|document|ref$|arkiv|viite|tunnus/,
  ],
];

/** A heading as its words are looked for: small letters, no accents, "_" and "-" as spaces. "Bokföringsdag" → "bokforingsdag". */
const plain = (heading: string): string =>
  heading
    .normalize('NFKC')
    .toLowerCase()
    .normalize('NFD')
    .replace(/[\u0300-\u036f]/g, '')
    .normalize('NFC')
    .replace(/ø/g, 'o')
    .replace(/æ/g, 'ae')
    .replace(/ß/g, 'ss')
    .replace(/ł/g, 'l')
    .replace(/[_-]/g, ' ')
    .trim();

/** Everything that a heading may say, what it says most closely first; headings of no known word say nothing. "Valuta" is a day or a currency. */
export function saidBy(heading: string): Said[] {
  const words = plain(heading);
  return WORDS.flatMap(([said, pattern]) => (pattern.test(words) ? [said] : []));
}
