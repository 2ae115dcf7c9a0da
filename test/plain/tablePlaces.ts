import { MONTHS, place, type Place } from './tableWords.ts';

/** Words of headings, and how dates, decimals and marks are written, by country (common practice; from memory). */
export const PLACES: Place[] = [
  place('en', '', {
    mark: '.',
    delimiter: ',',
    between: '/',
    months: MONTHS,
    marks: 'D/C Debit/Credit DR/CR Purchase/Refund',
  }),
  place('us', '', {
    order: 'mdy',
    mark: '.',
    delimiter: ',',
    between: '/',
    months: MONTHS,
    marks: 'Sale/Return Debit/Credit',
  }),
  place(
    'de',
    `booked: Buchungstag | Buchungsdatum | Gebucht am; day: Datum | Buchungstag;
     value: Valuta | Wertstellung | Valutadatum; bought: Kaufdatum | Belegdatum | Umsatztag;
     merchant: Händler | Empfänger | Buchungstext | Verwendungszweck | Beschreibung;
     category: Kategorie | Branche; reference: Referenz | Belegnummer | Referenznummer;
     currency: Währung | Devise; amount: Betrag | Umsatz | Betrag in EUR; debit: Soll | Belastung;
     credit: Haben | Gutschrift; side: Soll/Haben | S/H | Umsatzart;
     originalAmount: Betrag Fremdwährung | Originalbetrag | Ursprungsbetrag;
     originalCurrency: Fremdwährung | Originalwährung; balance: Saldo | Kontostand; fee: Gebühr | Entgelt;
     card: Karte | Kartennummer; holder: Karteninhaber; status: Status`,
    { marks: 'S/H Soll/Haben Belastung/Gutschrift' },
  ),
  place(
    'fr',
    `booked: Date de comptabilisation | Date comptable | Date d'imputation; day: Date | Date opération;
     value: Date de valeur | Valeur; bought: Date d'achat | Date de l'opération | Date de transaction;
     merchant: Libellé | Commerçant | Bénéficiaire | Nature; category: Catégorie;
     reference: Référence | Numéro; currency: Devise | Monnaie; amount: Montant | Montant EUR;
     debit: Débit | Dépenses; credit: Crédit | Recettes; side: Sens | Type;
     originalAmount: Montant d'origine | Montant en devise; originalCurrency: Devise d'origine;
     balance: Solde; fee: Frais | Commission; card: Carte | N° de carte; holder: Titulaire;
     status: État | Statut`,
    { between: '/', marks: 'D/C Débit/Crédit' },
  ),
  place(
    'es',
    `booked: Fecha contable | Fecha de cargo | F. contable; day: Fecha; value: Fecha valor | F. valor;
     bought: Fecha operación | Fecha de compra;
     merchant: Concepto | Comercio | Establecimiento | Descripción; category: Categoría;
     reference: Referencia | Número; currency: Divisa | Moneda; amount: Importe | Importe EUR;
     debit: Cargo | Debe; credit: Abono | Haber; side: Tipo | D/H;
     originalAmount: Importe original | Importe en divisa;
     originalCurrency: Divisa original | Moneda original; balance: Saldo; fee: Comisión; card: Tarjeta;
     holder: Titular; status: Estado`,
    { between: '/', marks: 'D/H Compra/Devolución' },
  ),
  place(
    'it',
    `booked: Data contabile | Data registrazione; day: Data; value: Data valuta | Valuta;
     bought: Data operazione | Data acquisto; merchant: Descrizione | Esercente | Causale;
     category: Categoria; reference: Riferimento | Numero; currency: Divisa;
     amount: Importo | Importo EUR; debit: Addebito | Dare | Uscite; credit: Accredito | Avere | Entrate;
     side: Segno | D/A; originalAmount: Importo originale | Importo in valuta;
     originalCurrency: Valuta originale | Divisa originale; balance: Saldo;
     fee: Commissione | Commissioni; card: Carta; holder: Intestatario | Titolare; status: Stato`,
    { between: '/', marks: 'D/A Acquisto/Rimborso' },
  ),
  place(
    'nl',
    `booked: Boekdatum | Boekingsdatum; day: Datum; value: Valutadatum | Rentedatum;
     bought: Transactiedatum | Aankoopdatum; merchant: Naam | Omschrijving | Naam tegenpartij | Winkel;
     category: Categorie; reference: Referentie | Volgnummer; currency: Valuta | Munt | Muntsoort;
     amount: Bedrag | Bedrag (EUR); debit: Af | Afschrijving; credit: Bij | Bijschrijving;
     side: Af Bij | Af/Bij | Soort; originalAmount: Oorspronkelijk bedrag | Bedrag vreemde valuta;
     originalCurrency: Vreemde valuta | Oorspronkelijke valuta; balance: Saldo | Saldo na mutatie;
     fee: Kosten; card: Kaart | Kaartnummer; holder: Kaarthouder; status: Status`,
    { between: '-', marks: 'Af/Bij D/C' },
  ),
  place(
    'pt',
    `booked: Data de lançamento | Data mov.; day: Data; value: Data valor | Data-valor;
     bought: Data da compra | Data da transação; merchant: Descrição | Comerciante | Estabelecimento;
     category: Categoria; reference: Referência | Número; currency: Moeda | Divisa;
     amount: Valor | Montante | Importância; debit: Débito; credit: Crédito; side: Tipo | D/C;
     originalAmount: Valor original | Montante em moeda; originalCurrency: Moeda original; balance: Saldo;
     fee: Comissão | Taxa; card: Cartão; holder: Titular; status: Estado | Situação`,
    { between: '/', marks: 'D/C Compra/Devolução' },
  ),
  place(
    'no',
    `booked: Bokføringsdato | Bokført dato | Bokført; day: Dato; value: Rentedato | Valuteringsdato;
     bought: Kjøpsdato | Transaksjonsdato; merchant: Tekst | Brukersted | Beskrivelse | Forklaring;
     category: Kategori; reference: Referanse | Arkivref | Bilagsnummer; currency: Valuta;
     amount: Beløp | Beløp NOK; debit: Ut av konto | Ut; credit: Inn på konto | Inn;
     side: Type | Debet/Kredit; originalAmount: Beløp i valuta | Opprinnelig beløp | Utenlandsk beløp;
     originalCurrency: Opprinnelig valuta | Utenlandsk valuta; balance: Saldo; fee: Gebyr;
     card: Kort | Kortnummer; holder: Kortholder; status: Status`,
    { marks: 'D/K Kjøp/Retur' },
  ),
  place(
    'sv',
    `booked: Bokföringsdag | Bokföringsdatum | Bokförd; day: Datum; value: Valutadag | Valutadatum;
     bought: Köpdatum | Transaktionsdatum | Inköpsdatum;
     merchant: Text | Butik | Beskrivning | Specifikation; category: Kategori;
     reference: Referens | Verifikationsnummer; currency: Valuta; amount: Belopp | Belopp i SEK;
     debit: Uttag | Debet; credit: Insättning | Kredit; side: Typ | Debet/Kredit;
     originalAmount: Ursprungligt belopp | Utländskt belopp | Belopp i valuta;
     originalCurrency: Ursprunglig valuta; balance: Saldo; fee: Avgift; card: Kort | Kortnummer;
     holder: Kortinnehavare; status: Status`,
    { order: 'ymd', between: '-', marks: 'D/K Köp/Retur' },
  ),
  place(
    'da',
    `booked: Bogføringsdato | Bogført; day: Dato; value: Rentedato | Valørdato;
     bought: Købsdato | Transaktionsdato; merchant: Tekst | Forretning | Beskrivelse; category: Kategori;
     reference: Reference | Bilagsnr.; currency: Valuta; amount: Beløb | Beløb DKK; debit: Ud | Hævet;
     credit: Ind | Indsat; side: Type | Debet/Kredit;
     originalAmount: Oprindeligt beløb | Beløb i valuta | Udenlandsk beløb;
     originalCurrency: Oprindelig valuta; balance: Saldo; fee: Gebyr; card: Kort | Kortnummer;
     holder: Kortholder; status: Status`,
    { between: '-', marks: 'D/K Køb/Retur' },
  ),
  place(
    'fi',
    `booked: Kirjauspäivä; day: Päivämäärä | Päivä | Pvm; value: Arvopäivä;
     bought: Ostopäivä | Tapahtumapäivä; merchant: Saaja | Selite | Myyjä | Saaja/Maksaja;
     category: Luokka; reference: Viite | Arkistointitunnus; currency: Valuutta;
     amount: Määrä | Summa | Määrä EUR; debit: Otto | Veloitus; credit: Pano; side: Laji | Tyyppi;
     originalAmount: Alkuperäinen summa | Määrä valuutassa; originalCurrency: Alkuperäinen valuutta;
     balance: Saldo; fee: Palvelumaksu; card: Kortti | Kortin numero; holder: Kortinhaltija; status: Tila`,
    { marks: 'Osto/Palautus' },
  ),
  place(
    'pl',
    `booked: Data księgowania; day: Data; value: Data waluty; bought: Data transakcji | Data operacji;
     merchant: Opis | Kontrahent | Odbiorca | Tytuł; category: Kategoria;
     reference: Numer referencyjny | Nr transakcji; currency: Waluta; amount: Kwota | Kwota PLN;
     debit: Obciążenia | Wypłaty; credit: Uznania | Wpłaty; side: Typ | Rodzaj;
     originalAmount: Kwota oryginalna | Kwota w walucie; originalCurrency: Waluta oryginalna;
     balance: Saldo | Saldo po operacji; fee: Opłata | Prowizja; card: Karta | Numer karty;
     holder: Posiadacz; status: Status`,
    { order: 'ymd', between: '-', marks: 'Zakup/Zwrot' },
  ),
  place(
    'hu',
    `booked: Könyvelés dátuma | Könyvelési dátum; day: Dátum; value: Értéknap;
     bought: Tranzakció dátuma | Vásárlás dátuma; merchant: Kereskedő | Közlemény | Partner neve | Leírás;
     category: Kategória; reference: Azonosító | Tranzakció azonosító; currency: Deviza | Pénznem;
     amount: Összeg; debit: Terhelés; credit: Jóváírás; side: Típus | Irány;
     originalAmount: Eredeti összeg; originalCurrency: Eredeti deviza | Eredeti pénznem;
     balance: Egyenleg; fee: Díj | Jutalék; card: Kártya | Kártyaszám; holder: Kártyabirtokos;
     status: Állapot | Státusz`,
    { order: 'ymd', between: '-', marks: 'Vásárlás/Visszatérítés' },
  ),
  place(
    'ja',
    `booked: 処理日 | 計上日 | 売上日; day: 日付 | 年月日; value: 起算日; bought: 利用日 | ご利用日;
     merchant: 利用店名 | 摘要 | 店名 | ご利用先; category: 分類 | カテゴリ; reference: 伝票番号 | 照会番号; currency: 通貨;
     amount: 利用金額 | 金額 | ご利用金額(円); debit: 出金 | お支払金額; credit: 入金; side: 区分 | 種別;
     originalAmount: 現地通貨額 | 外貨金額; originalCurrency: 現地通貨 | 外貨コード; balance: 残高 | 差引残高; fee: 手数料;
     card: カード番号 | カード; holder: 利用者 | 会員名; status: 状態`,
    { order: 'ymd', mark: '.', delimiter: ',', between: '/', marks: '利用/返品 利用/取消' },
  ),
];
