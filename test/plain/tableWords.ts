type Word =
  | 'booked'
  | 'day'
  | 'value'
  | 'bought'
  | 'merchant'
  | 'category'
  | 'reference'
  | 'currency'
  | 'amount'
  | 'debit'
  | 'credit'
  | 'side'
  | 'originalAmount'
  | 'originalCurrency'
  | 'balance'
  | 'fee'
  | 'card'
  | 'holder'
  | 'status';

/** How tables of one country are written: words of headings by what is under them (common practice; from memory). */
export interface Place {
  id: string;
  order: 'dmy' | 'mdy' | 'ymd';
  mark: ',' | '.';
  delimiter: ',' | ';';
  /** What stands between day, month and year. */
  between: string;
  months: string[];
  /** Marks of what was spent and of what came back. */
  marks: [string, string][];
  words: Record<Word, string[]>;
}

const ENGLISH: Place['words'] = {
  booked: ['Posting date', 'Booking date', 'Date posted', 'Post Date'],
  day: ['Date', 'Day', 'Posting date'],
  value: ['Value date'],
  bought: ['Transaction date', 'Purchase date', 'Trans. date', 'Date of purchase'],
  merchant: ['Merchant', 'Description', 'Details', 'Payee', 'Merchant name', 'Transaction'],
  category: ['Category', 'Merchant category'],
  reference: ['Reference', 'Transaction ID', 'Ref. no.'],
  currency: ['Currency', 'Ccy', 'Billing currency'],
  amount: ['Amount', 'Billing amount', 'Sum', 'Amount charged'],
  debit: ['Debit', 'Paid out', 'Money out', 'Withdrawn'],
  credit: ['Credit', 'Paid in', 'Money in'],
  side: ['Type', 'Debit/Credit', 'D/C', 'Dr/Cr'],
  originalAmount: ['Original amount', 'Foreign amount', 'Amount in currency'],
  originalCurrency: ['Original currency', 'Foreign currency'],
  balance: ['Balance', 'Running balance'],
  fee: ['Fee', 'Foreign transaction fee'],
  card: ['Card', 'Card number', 'Card ending'],
  holder: ['Cardholder', 'Cardholder name', 'Employee'],
  status: ['Status', 'State'],
};
export const MONTHS = 'Jan Feb Mar Apr May Jun Jul Aug Sep Oct Nov Dec'.split(' ');

/** A place from its words, "booked: Posting date | Post Date; day: Date", English where it has none; marks are spent/back. */
export const place = (
  id: string,
  words: string,
  { marks = 'D/C', ...more }: Partial<Omit<Place, 'marks' | 'words'>> & { marks?: string },
): Place => ({
  id,
  order: 'dmy',
  mark: ',',
  delimiter: ';',
  between: '.',
  months: [],
  marks: marks.split(' ').map((pair) => pair.split('/') as [string, string]),
  words: { ...ENGLISH, ...wordsOf(words) },
  ...more,
});

const wordsOf = (words: string): Partial<Place['words']> =>
  Object.fromEntries(
    words.split(';').flatMap((part) => {
      const [word = '', said = ''] = part.split(': ');
      return said ? [[word.trim(), said.split('|').map((s) => s.trim())]] : [];
    }),
  );
