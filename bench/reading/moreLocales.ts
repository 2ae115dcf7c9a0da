import { LOCALES, type Locale } from './facts.ts';

type Words = Locale['words'];
const numbers = (decimals: number, group: string, mark: string) => (minor: number) => {
  const digits = String(minor).padStart(decimals + 1, '0');
  const head = digits.slice(0, -decimals);
  const whole = [...head].map((d, i) => (i > 0 && (head.length - i) % 3 === 0 ? group + d : d)).join('');
  return `${whole}${mark}${digits.slice(-decimals)}`;
};
const dates = (write: (y: string, m: string, d: string) => string) => (iso: string) => {
  const [y, m, d] = iso.split('-') as [string, string, string];
  return write(y, m, d);
};
const words = (list: string): Words => {
  const [total, sub, tax, cash, change, card, receipt, date, taxNo, thanks] = list.split('|') as [
    string,
    string,
    string,
    string,
    string,
    string,
    string,
    string,
    string,
    string,
  ];
  return { total, sub, tax, cash, change, card, receipt, date, taxNo, thanks };
};

/** Countries, and ways of their own to say things, that the reader's other sets do not have. Everybody is invented. */
export const MORE_LOCALES: readonly Locale[] = [
  ...LOCALES,
  {
    currency: 'EUR',
    sign: '€',
    decimals: 2,
    rate: 21,
    prefix: 'ES',
    number: numbers(2, '.', ','),
    date: dates((y, m, d) => `${d}/${m}/${y}`),
    words: words(
      'TOTAL A PAGAR|Base imponible|IVA|Efectivo|Cambio|Tarjeta|Factura simplificada|Fecha|NIF|Gracias por su visita',
    ),
    merchants: ['Posada del Estero SL', 'Ferretería La Ría', 'Café Marisma'],
    streets: ['C/ del Puerto 14, 11500 Cádiz', 'Plaza Mayor 2'],
    items: ['Menú del día', 'Café con leche', 'Cuerda 10 m', 'Guantes', 'Agua mineral', 'Bocadillo'],
  },
  {
    currency: 'EUR',
    sign: '€',
    decimals: 2,
    rate: 22,
    prefix: 'IT',
    number: numbers(2, '.', ','),
    date: dates((y, m, d) => `${d}-${m}-${y}`),
    words: words(
      'TOTALE COMPLESSIVO|Imponibile|IVA|Contanti|Resto|Carta di credito|Documento commerciale|Data|P.IVA|Grazie e arrivederci',
    ),
    merchants: ['Locanda della Laguna srl', 'Ferramenta Barene', 'Bar Canneto'],
    streets: ['Via del Porto 7, 30015 Chioggia', 'Calle Lunga 3'],
    items: ['Pranzo', 'Caffè', 'Corda 10 m', 'Stivali', 'Acqua', 'Quaderno'],
  },
  {
    currency: 'EUR',
    sign: 'EUR',
    decimals: 2,
    rate: 21,
    prefix: 'NL',
    number: numbers(2, '.', ','),
    date: dates((y, m, d) => `${d}-${m}-${y}`),
    words: words('Te betalen|Subtotaal|BTW|Contant|Wisselgeld|Bankpas|Kassabon|Datum|BTW-nr|Bedankt en tot ziens'),
    merchants: ['Waddenwinkel BV', 'Eetcafé De Kwelder', 'Scheepswinkel Oost'],
    streets: ['Havenstraat 9, 8861 Harlingen', 'Dijkweg 4'],
    items: ['Broodje', 'Koffie', 'Touw 10 m', 'Laarzen', 'Water', 'Soep'],
  },
  {
    currency: 'SEK',
    sign: 'kr',
    decimals: 2,
    rate: 25,
    prefix: 'SE',
    number: numbers(2, ' ', ','),
    date: dates((y, m, d) => `${y}-${m}-${d}`),
    words: words('Att betala|Netto|Moms|Kontant|Växel|Kort|Kvitto|Datum|Org.nr|Tack och välkommen åter'),
    merchants: ['Strandängens Friluft AB', 'Vassvikens Kafé', 'Båtboden AB'],
    streets: ['Hamngatan 3, 261 31 Landskrona', 'Kajen 1'],
    items: ['Fisksoppa', 'Kaffe', 'Rep 10 m', 'Stövlar', 'Vatten', 'Bulle'],
  },
  {
    currency: 'DKK',
    sign: 'kr.',
    decimals: 2,
    rate: 25,
    prefix: 'DK',
    number: numbers(2, '.', ','),
    date: dates((y, m, d) => `${d}-${m}-${y.slice(2)}`),
    words: words('At betale|Subtotal|Moms|Kontant|Tilbage|Dankort|Kvittering|Dato|CVR-nr|Tak for besøget'),
    merchants: ['Marskens Udstyr ApS', 'Café Sandpiben', 'Havnekroen'],
    streets: ['Havnegade 12, 6760 Ribe', 'København K'],
    items: ['Fiskefilet', 'Kaffe', 'Reb 10 m', 'Støvler', 'Vand', 'Rundstykke'],
  },
  {
    currency: 'CAD',
    sign: '$',
    decimals: 2,
    rate: 13,
    prefix: 'CA',
    number: numbers(2, ',', '.'),
    date: dates((y, m, d) => `${y}-${m}-${d}`),
    words: words('TOTAL|Subtotal|HST|Cash|Change|Credit card|Receipt|Date|HST No|See you soon'),
    merchants: ['Fundy Shore Outfitters', 'Tantramar Diner', 'Minas Basin Inn'],
    streets: ['12 Wharf Road, Ontario', 'Canada'],
    items: ['Chowder', 'Coffee', 'Rope 10 m', 'Boots', 'Water', 'Notebook'],
  },
];
