import { describe, expect, it } from 'vitest';
import type { Mapping } from '../../../../contract/statements.ts';
import { checkStatement } from '../../../../core/evidence/statements/checkStatement.ts';
import { proposeMapping } from './columns/proposeMapping.ts';
import { readTable } from './csv.ts';
import { readStatements } from './readStatements.ts';
import { textOf } from './textOf.ts';
import { entriesOfTable } from './tableRows.ts';

/** Statements as banks write them beside the plain cases: what is right is read, what is not is refused by name. */
const only = (text: string) => {
  const read = readStatements(text);
  if (!read?.ok) throw new Error(read?.says ?? 'not a statement');
  const [first] = read.statements;
  return first!.ok ? first!.statement : first!.says;
};
const read = (text: string) => {
  const statement = only(text);
  if (typeof statement === 'string') throw new Error(statement);
  return statement;
};

/** Written by hand by ISO 20022 camt.053, message definition report (from memory). */
const camt = (entries: string, { sum = '', dates = '' } = {}) => `<?xml version="1.0"?>
<Document xmlns="urn:iso:std:iso:20022:tech:xsd:camt.053.001.08"><BkToCstmrStmt><Stmt><Id>S1</Id>${dates}
<Acct><Id><Othr><Id>4410</Id></Othr></Id><Ccy>EUR</Ccy></Acct>${sum}${entries}</Stmt></BkToCstmrStmt></Document>`;
const entry = (inside: string, { amount = '50.00', status = 'BOOK', currency = 'EUR' } = {}) =>
  `<Ntry><Amt Ccy="${currency}">${amount}</Amt><CdtDbtInd>DBIT</CdtDbtInd><Sts><Cd>${status}</Cd></Sts><BookgDt><Dt>2026-03-02</Dt></BookgDt>${inside}</Ntry>`;
const total = (count: number, sum: string) =>
  `<TxsSummry><TtlNtries><NbOfNtries>${count}</NbOfNtries><Sum>${sum}</Sum></TtlNtries></TxsSummry>`;
const details = (...transactions: string[]) =>
  `<NtryDtls>${transactions.map((t) => `<TxDtls>${t}</TxDtls>`).join('')}</NtryDtls>`;

describe('camt.053', () => {
  const batch = entry(details('<Amt Ccy="EUR">20.00</Amt>', '<Amt Ccy="EUR">30.00</Amt>'));
  it('counts a batch once, as the standard does, and what is pending or not', () => {
    for (const sum of [total(1, '50.00'), total(2, '59.00')]) {
      const statement = read(camt(batch + entry('', { amount: '9.00', status: 'PDNG' }), { sum }));
      expect(statement.entries.map((e) => e.settled)).toEqual(['20.00', '30.00']);
      expect([statement.pending, checkStatement(statement)]).toEqual([1, []]);
    }
    expect(checkStatement(read(camt(batch, { sum: total(3, '50.00') })))[0]).toContain('says it has 3 entries, and 1');
  });
  it('takes transactions that have only the amount instructed, and a batch whole where they are of other currencies', () => {
    const instructed = (currency: string) =>
      details(
        `<AmtDtls><InstdAmt><Amt Ccy="${currency}">20.00</Amt></InstdAmt></AmtDtls>`,
        `<AmtDtls><InstdAmt><Amt Ccy="${currency}">30.00</Amt></InstdAmt></AmtDtls>`,
      );
    expect(read(camt(entry(instructed('EUR')))).entries.map((e) => e.settled)).toEqual(['20.00', '30.00']);
    expect(read(camt(entry(instructed('USD')))).entries.map((e) => e.settled)).toEqual(['50.00']);
  });
  it('refuses a batch whose transactions come to something else', () => {
    const short = entry(details('<Amt Ccy="EUR">20.00</Amt>', '<Amt Ccy="EUR">29.99</Amt>'));
    expect(only(camt(short))).toMatch(/entry 1.*49\.99.*50\.00/);
  });
  it('reads every block of details of an entry, as far as each tells its amount', () => {
    const block = (amount: string, name: string) =>
      `<NtryDtls><TxDtls>${amount}<RltdPties><Cdtr><Nm>${name}</Nm></Cdtr></RltdPties></TxDtls></NtryDtls>`;
    const two = (a: string, b: string) =>
      read(camt(entry(block(a, 'Quay') + block(b, 'Pier'), { amount: '60.00' }))).entries;
    expect(two('<Amt Ccy="EUR">20.00</Amt>', '<Amt Ccy="EUR">40.00</Amt>').map((e) => [e.merchant, e.settled])).toEqual(
      [
        ['Quay', '20.00'],
        ['Pier', '40.00'],
      ],
    );
    // not told apart, they are one entry and nobody's in particular
    expect(two('', '').map((e) => [e.settled, e.merchant === 'Quay' || e.merchant === 'Pier'])).toEqual([
      ['60.00', false],
    ]);
  });
  it('takes what the bank charged within a batch as an entry of its own, and refuses what nothing explains', () => {
    const charged = (fee: string) =>
      entry(
        `<Chrgs><Rcrd><Amt Ccy="EUR">${fee}</Amt><CdtDbtInd>DBIT</CdtDbtInd><ChrgInclInd>true</ChrgInclInd></Rcrd></Chrgs>`
          + details('<Amt Ccy="EUR">20.00</Amt>', '<Amt Ccy="EUR">28.50</Amt>'),
      );
    expect(read(camt(charged('1.50'))).entries.map((e) => [e.settled, e.merchant === 'Bank charges'])).toEqual([
      ['20.00', false],
      ['28.50', false],
      ['1.50', true],
    ]);
    expect(only(camt(charged('1.40')))).toMatch(/entry 1.*48\.50.*50\.00/);
  });
  it('compares interim balances where a statement is a page of several', () => {
    const balance = (code: string, amount: string) =>
      `<Bal><Tp><CdOrPrtry><Cd>${code}</Cd></CdOrPrtry></Tp><Amt Ccy="EUR">${amount}</Amt><CdtDbtInd>CRDT</CdtDbtInd><Dt><Dt>2026-03-02</Dt></Dt></Bal>`;
    const page = (a: string, b: string) => read(camt(entry(''), { sum: a + b }));
    for (const [a, b] of [
      ['ITBD', 'ITBD'],
      ['OPBD', 'ITBD'],
      ['ITBD', 'CLBD'],
    ] as const) {
      const right = page(balance(a, '90.00'), balance(b, '40.00'));
      expect([right.opening, right.closing, checkStatement(right)]).toEqual(['90.00', '40.00', []]);
      expect(checkStatement(page(balance(a, '90.00'), balance(b, '41.00')))).not.toEqual([]);
    }
  });
  it('names the merchant of what is reversed, and what was paid in its own currency wherever it stands', () => {
    const parties = '<RltdPties><Dbtr><Nm>Holder</Nm></Dbtr><Cdtr><Nm>Quay</Nm></Cdtr></RltdPties>';
    const reversed = entry(`<RvslInd>true</RvslInd>${details(parties)}`).replace('DBIT', 'CRDT');
    expect(read(camt(reversed)).entries[0]).toMatchObject({ merchant: 'Quay', settled: '-50.00' });
    const dollars = '<Amt Ccy="USD">54.17</Amt>';
    for (const inside of [
      `<AmtDtls><InstdAmt>${dollars}</InstdAmt></AmtDtls>`,
      `<AmtDtls><TxAmt>${dollars}</TxAmt></AmtDtls>`,
      details(`<AmtDtls><TxAmt>${dollars}</TxAmt></AmtDtls>`),
    ])
      expect(read(camt(entry(inside))).entries[0]!.charged).toEqual({ amount: '54.17', currency: 'USD' });
    expect(
      read(camt(entry(`<AmtDtls><TxAmt><Amt Ccy="EUR">50.00</Amt></TxAmt></AmtDtls>`))).entries[0]!.charged,
    ).toBeNull();
  });
  it('reads letters that are written by their number', () => {
    const named = details('<RltdPties><Cdtr><Nm>Caf&#233; &#xC5;l &amp; S&#248;n</Nm></Cdtr></RltdPties>');
    expect(read(camt(entry(named))).entries[0]!.merchant).toBe('Café Ål & Søn');
  });
  it.each([
    ['camt.052', 'BkToCstmrAcctRpt', 'Rpt'],
    ['camt.054', 'BkToCstmrDbtCdtNtfctn', 'Ntfctn'],
  ])('is read as %s too', (format, message, part) => {
    const text = camt(entry(''))
      .replaceAll('BkToCstmrStmt', message)
      .replaceAll('Stmt>', `${part}>`)
      .replace('053', format.slice(-3));
    const file = readStatements(text);
    expect(file?.ok && [file.format, file.statements[0]!.ok]).toEqual([format, true]);
    expect(read(text).entries.map((e) => e.settled)).toEqual(['50.00']);
  });
  it('finds the merchant in the ultimate creditor or in what was remitted', () => {
    const ultimate = details(
      '<RltdPties><Cdtr><Nm>Pay Agent</Nm></Cdtr><UltmtCdtr><Pty><Nm>Quay</Nm></Pty></UltmtCdtr></RltdPties>',
    );
    expect(read(camt(entry(ultimate))).entries[0]!.merchant).toBe('Quay');
    const remitted = details('<RmtInf><Ustrd>HARBOUR</Ustrd><Ustrd>GIFTS</Ustrd></RmtInf>');
    expect(read(camt(entry(remitted))).entries[0]!.merchant).toBe('HARBOUR GIFTS');
  });
  it.each(['infinity', 'tomorrow', '2026-02-31', '0000-13-01'])('is refused with the day %s', (day) => {
    const dates = `<FrToDt><FrDtTm>${day}</FrDtTm><ToDtTm>2026-03-31T00:00:00</ToDtTm></FrToDt>`;
    expect(only(camt(entry(''), { dates }))).toContain(`"${day}"`);
    expect(only(camt(entry('').replace('2026-03-02', day)))).toContain('does not exist');
  });
  it('is refused with a sign of an amount’s own, and with an entry of nothing', () => {
    expect(only(camt(entry('', { amount: '-50.00' })))).toContain('has a sign of its own');
    expect(checkStatement(read(camt(entry('', { amount: '0.00' }))))[0]).toContain('entry 1 is of 0.00');
  });
  it('is read from UTF-16, whichever byte comes first', () => {
    const little = Buffer.from(`\ufeff${camt(entry(''))}`, 'utf16le');
    const big = Buffer.from(little).swap16();
    for (const bytes of [little, big]) expect(read(textOf(bytes)).entries).toHaveLength(1);
  });
});

/** Written by hand by OFX 2.2, 11.4.4.1: CURRENCY tells what TRNAMT is in, ORIGCURRENCY what it was converted from. */
describe('OFX', () => {
  const ofx = (inside: string) =>
    `OFXHEADER:100\n\n<OFX><CCSTMTRS><CURDEF>EUR<CCACCTFROM><ACCTID>4410</CCACCTFROM><BANKTRANLIST><STMTTRN><TRNTYPE>DEBIT<DTPOSTED>20260303<TRNAMT>-50.50<FITID>F1<NAME>QUAY${inside}</STMTTRN></BANKTRANLIST></CCSTMTRS></OFX>\n`;
  it('reads names by numbers of letters and in CDATA, and leaves out an entry of nothing', () => {
    const named = (name: string) => read(ofx('').replace('QUAY', name)).entries.map((e) => e.merchant);
    expect(named('Caf&#233; &amp; Bar')).toEqual(['Café & Bar']);
    expect(named('<![CDATA[Quay & <Sons>]]>')).toEqual(['Quay & <Sons>']);
    const nothing = ofx('').replace(
      '</STMTTRN>',
      '</STMTTRN><STMTTRN><TRNTYPE>OTHER<DTPOSTED>20260304<TRNAMT>0.00<FITID>F2</STMTTRN>',
    );
    expect([read(nothing).entries.length, checkStatement(read(nothing))]).toEqual([1, []]);
  });
  it('never takes an amount in another currency for one of the account', () => {
    expect(only(ofx('<CURRENCY><CURRATE>0.9<CURSYM>USD</CURRENCY>'))).toContain(
      'the amount is in USD, the account in EUR',
    );
    expect(read(ofx('<CURRENCY><CURRATE>1<CURSYM>EUR</CURRENCY>')).entries[0]!.settled).toBe('50.50');
    expect(read(ofx('<ORIGCURRENCY><CURRATE>0.92305<CURSYM>USD</ORIGCURRENCY>')).entries[0]!.charged).toEqual({
      amount: '54.71',
      currency: 'USD',
    });
  });
});

/** Written by hand by SWIFT MT940 (User Handbook, category 9; from memory). */
describe('MT940', () => {
  const mt940 = (account: string, line: string, information = '') =>
    `:20:S\n:25:${account}\n:28C:3/1\n:60F:D260301EUR100,00\n:61:${line}\n${information}:62F:D260331EUR150,50\n-`;
  it.each([
    ['BANK/4410EUR', '4410'],
    ['4410 EUR', '4410'],
    ['DE89370400440532013000EUR', 'DE89370400440532013000'],
    ['4410', '4410'],
  ])('has an account that a currency may follow: %s', (written, account) => {
    expect(read(mt940(written, '2603020303D50,5NMSCR1//B1')).account).toBe(account);
  });
  it.each([
    [':86:/NAME/QUAY STORES/REMI/INVOICE 7\n', 'QUAY STORES'],
    [':86:166?00CARD?20HARBOUR GIFTS?21WEXFORD\n', 'HARBOUR GIFTS WEXFORD'],
    [':86:166?00CARD?20INVOICE?32QUAY?33STORES\n', 'QUAY STORES'],
    [':86:166>00CARD>20INVOICE>32QUAY>33STORES\n', 'QUAY STORES'],
    [':86:166?00CARD?20EREF+77120?21SVWZ+HARBOUR GIFTS?22KREF+9\n', 'HARBOUR GIFTS'],
    [':86:166?00CARD?20SVWZ+HARBOUR GIFTS AND LAMP?21SHADES\n', 'HARBOUR GIFTS AND LAMPSHADES'],
  ])('names the merchant in subfields and code words: %s', (information, merchant) => {
    expect(read(mt940('4410', '2603020303D50,5NMSCR1//B1', information)).entries[0]!.merchant).toBe(merchant);
  });
  it('tells the original amount in subfield 9 of field 61', () => {
    const [first] = read(mt940('4410', '2603020303D50,5NMSCR1//B1\n/OCMT/USD54,71/')).entries;
    expect(first!.charged).toEqual({ amount: '54.71', currency: 'USD' });
  });
});

const tableOf = (text: string) => {
  const table = readTable(text);
  if (!table.ok) throw new Error(table.says);
  return table.table;
};
/** The rows of a table by what was proposed for it, with what a person would add. */
const rowsOf = (text: string, said: Partial<Mapping> = {}, currency = 'EUR') => {
  const table = tableOf(text);
  const { entries, problems } = entriesOfTable(table, { ...proposeMapping(table), ...said } as Mapping, { currency });
  return [
    ...entries.map((e) => `${e.bookedOn} ${e.settled} ${e.merchant}`),
    ...problems.map((p) => `line ${p.line}: ${p.says}`),
  ];
};

describe('a table', () => {
  it('is never cut: it is read whole, or refused', () => {
    const rows = (n: number) => `Date;Amount;Merchant\n${'2026-03-02;1,00;Quay\n'.repeat(n)}`;
    expect(tableOf(rows(60_000)).rows).toHaveLength(60_000);
    const more = readTable(rows(100_001));
    expect(more.ok ? '' : more.says).toContain('more than 100000 rows');
  });
  it('may have lines above its headings, or none at all', () => {
    const body = '02.03.2026;12,30;Quay\n03.03.2026;1,00;Harbour\n04.03.2026;2,00;Ferry\n';
    const above = `Card statement\n;;\nFrom;2026-03-01\n\nBooking date;Amount;Merchant\n${body}`;
    const expected = ['2026-03-02 12.30 Quay', '2026-03-03 1.00 Harbour', '2026-03-04 2.00 Ferry'];
    expect(rowsOf(above, { order: 'dmy' })).toEqual(expected);
    expect(tableOf(body).columns).toEqual(['Column 1', 'Column 2', 'Column 3']);
    expect(rowsOf(body, { date: 0, amount: 1, merchant: 2, order: 'dmy', mark: ',', spent: 'positive' })).toEqual(
      expected,
    );
  });
  it('may have debits and credits in two columns', () => {
    const text =
      'Date;Merchant;Debit;Credit\n2026-03-02;Quay;12,30;\n2026-03-03;Quay;0,00;1,00\n2026-03-04;Quay;1,00;1,00\n2026-03-05;Quay;;\n2026-03-06;Quay;-1,00;\n';
    expect(rowsOf(text)).toEqual([
      '2026-03-02 12.30 Quay',
      '2026-03-03 -1.00 Quay',
      'line 4: it was spent and came back at once',
      'line 5: there is no amount',
      'line 6: the amount "-1,00" has a sign against its column',
    ]);
  });
  it('may have a mark of its side', () => {
    const text =
      'Date;Merchant;Amount;Debit/Credit\n2026-03-02;Quay;12,30;D\n2026-03-03;Quay;1,00;CR\n2026-03-04;Quay;1,00;?\n2026-03-05;Quay;-1,00;Haben\n';
    expect(rowsOf(text)).toEqual([
      '2026-03-02 12.30 Quay',
      '2026-03-03 -1.00 Quay',
      'line 4: "?" does not say whether it was spent or came back',
      'line 5: the amount "-1,00" has a sign against its mark "Haben"',
    ]);
  });
  it('may name its months and write signs of currencies beside amounts', () => {
    const text =
      'Date;Amount;Merchant\n2 Mar 2026;€ 12,30;Quay\n3-mars-26;1,00 EUR;Quay\n4. März 2026;-€2,00;Quay\nMay 5, 2026;$ 3,00;Quay\n6 Mar 2026;4,00 USD;Quay\n31 Feb 2026;1,00;Quay\n';
    expect(rowsOf(text)).toEqual([
      '2026-03-02 12.30 Quay',
      '2026-03-03 1.00 Quay',
      '2026-03-04 -2.00 Quay',
      'line 5: the amount "$ 3,00" is not in EUR, the card\'s currency',
      'line 6: the amount "4,00 USD" is not in EUR, the card\'s currency',
      'line 7: the date "31 Feb 2026" does not exist in the order dmy',
    ]);
  });
  it('with a column of currencies takes only the card’s', () => {
    const text = 'Date;Amount;Currency;Merchant\n2026-03-02;12,30;EUR;Quay\n2026-03-03;1,00;USD;Quay\n';
    expect(rowsOf(text)).toEqual(['2026-03-02 12.30 Quay', 'line 3: the amount is in USD, the card in EUR']);
  });
  it('has no row of nothing, of another year, or with an original amount of another sign', () => {
    const text =
      'Date;Amount;Merchant;Original amount;Original currency\n2026-03-02;12,30;Quay;10,00;USD\n2026-03-03;0,00;Quay;;\n2021-03-03;1,00;Quay;;\n2026-03-04;1,00;Quay;-1,00;USD\n2026-03-05;1,00;Quay;0;USD\n';
    expect(rowsOf(text)).toEqual([
      '2026-03-02 12.30 Quay',
      'line 3: the amount is zero',
      'line 4: 2021-03-03 is more than a year from the other rows',
      'line 5: the original amount "-1,00" has another sign than the amount',
      'line 6: the original amount "0" is zero',
    ]);
  });
  it('writes "-.50", and yen with ".00"', () => {
    expect(
      rowsOf('Date;Amount;Merchant\n2026-03-02;-.50;Quay\n2026-03-03;.5;Quay\n', { mark: '.', spent: 'positive' }),
    ).toEqual(['2026-03-02 -0.50 Quay', '2026-03-03 0.50 Quay']);
    const yen = 'Date;Amount;Merchant\n2026-03-02;1,250.00;Quay\n2026-03-03;1250.50;Quay\n2026-03-04;1.250;Quay\n';
    expect(rowsOf(yen, { mark: '.', spent: 'positive' }, 'JPY')).toEqual([
      '2026-03-02 1250 Quay',
      'line 3: "1250.50" has more decimals than JPY',
      'line 4: "1.250" has more decimals than JPY',
    ]);
  });
});
