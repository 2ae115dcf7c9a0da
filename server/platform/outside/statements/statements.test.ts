import { describe, expect, it } from 'vitest';
import { checkStatement } from '../../../../core/evidence/statements/checkStatement.ts';
import type { Mapping } from '../../../../contract/statements.ts';
import { proposeMapping } from './columns/proposeMapping.ts';
import { readTable } from './csv.ts';
import { entriesOfTable } from './tableRows.ts';
import { readStatements } from './readStatements.ts';
import { textOf } from './textOf.ts';
import type { ReadFile } from './readStatements.types.ts';

const only = (read: ReadFile | null) => {
  if (!read?.ok) throw new Error(read?.says ?? 'not a statement');
  const [first] = read.statements;
  if (!first!.ok) throw new Error(first!.says);
  return first!.statement;
};
const refusal = (read: ReadFile | null): string | null => {
  if (read === null) return null;
  if (!read.ok) return read.says;
  const bad = read.statements.find((s) => !s.ok);
  return bad && !bad.ok ? bad.says : null;
};

/** Written by hand by the field rules of SWIFT MT940 (User Handbook, category 9; from memory): 60F, 61, 86, 62F. */
const MT940 = `:20:4410STMT
:25:BANK/4410
:28C:3/1
:60F:D260301EUR100,00
:61:2603020303D50,5NMSCNONREF//B77
:86:QUAY STORES
/OCMT/USD54,71/
:61:2603041231C12,NMSCABC//B78
:86:?20refund?32HARBOUR?33 GIFTS
:62F:D260331EUR138,50
-`;

describe('MT940', () => {
  it('gives balances, amounts with a decimal comma, references and names', () => {
    const statement = only(readStatements(MT940));
    expect(statement).toMatchObject({
      account: '4410',
      currency: 'EUR',
      opening: '-100.00',
      closing: '-138.50',
      from: '2026-03-01',
      to: '2026-03-31',
    });
    expect(statement.entries).toMatchObject([
      {
        reference: 'B77',
        bookedOn: '2026-03-03',
        purchasedOn: '2026-03-02',
        settled: '50.50',
        charged: { amount: '54.71', currency: 'USD' },
        merchant: 'QUAY STORES',
      },
      { reference: 'B78', bookedOn: '2025-12-31', settled: '-12.00', merchant: 'HARBOUR GIFTS' },
    ]);
    expect(checkStatement(statement)).toEqual([]);
  });
  it('is refused where it is broken, saying where', () => {
    expect(refusal(readStatements(MT940.replace(':62F:D260331EUR138,50\n', '')))).toContain(
      'closing balance (field 62F) is missing',
    );
    expect(refusal(readStatements(MT940.replace('2603020303D', '2602310303D')))).toContain('2026-02-31 does not exist');
    expect(refusal(readStatements(MT940.replace('D50,5N', 'D1e9N')))).toContain('is not a statement line');
  });
});

const camt = (entries: string, closing = '50.00') => `<?xml version="1.0"?>
<Document xmlns="urn:iso:std:iso:20022:tech:xsd:camt.053.001.08"><BkToCstmrStmt><Stmt><Id>S1</Id>
<Acct><Id><Othr><Id>4410</Id></Othr></Id><Ccy>EUR</Ccy></Acct>
<Bal><Tp><CdOrPrtry><Cd>OPBD</Cd></CdOrPrtry></Tp><Amt Ccy="EUR">0</Amt><CdtDbtInd>DBIT</CdtDbtInd><Dt><Dt>2026-03-01</Dt></Dt></Bal>
<Bal><Tp><CdOrPrtry><Cd>CLBD</Cd></CdOrPrtry></Tp><Amt Ccy="EUR">${closing}</Amt><CdtDbtInd>DBIT</CdtDbtInd><Dt><Dt>2026-03-31</Dt></Dt></Bal>
${entries}</Stmt></BkToCstmrStmt></Document>`;
const entry = (amount: string, inside = '', status = '<Sts><Cd>BOOK</Cd></Sts>') =>
  `<Ntry><Amt Ccy="EUR">${amount}</Amt><CdtDbtInd>DBIT</CdtDbtInd>${status}<BookgDt><Dt>2026-03-02</Dt></BookgDt><AcctSvcrRef>R1</AcctSvcrRef>${inside}</Ntry>`;

/** Written by hand by ISO 20022 camt.053, message definition report (from memory). */
describe('camt.053', () => {
  it('reads newer and older forms of status and party, and leaves out what is pending', () => {
    const party =
      '<NtryDtls><TxDtls><RltdPties><Cdtr><Pty><Nm>Quay &amp; Sons</Nm></Pty></Cdtr></RltdPties></TxDtls></NtryDtls>';
    const statement = only(readStatements(camt(entry('50', party) + entry('9.00', '', '<Sts>PDNG</Sts>'))));
    expect(statement.entries).toMatchObject([{ settled: '50.00', merchant: 'Quay & Sons', reference: 'R1' }]);
    expect(checkStatement(statement)).toEqual([]);
  });
  it('takes a batch apart into its transactions', () => {
    const one = (ref: string, amount: string) =>
      `<TxDtls><Refs><AcctSvcrRef>${ref}</AcctSvcrRef></Refs><Amt Ccy="EUR">${amount}</Amt><CdtDbtInd>DBIT</CdtDbtInd></TxDtls>`;
    const statement = only(
      readStatements(camt(entry('50.00', `<NtryDtls>${one('a', '20.00')}${one('b', '30.00')}</NtryDtls>`))),
    );
    expect(statement.entries.map((e) => [e.reference, e.settled])).toEqual([
      ['a', '20.00'],
      ['b', '30.00'],
    ]);
  });
  it('is refused whole when it breaks off, declares entities or has other amounts', () => {
    expect(refusal(readStatements(camt(entry('50.00')).slice(0, -120)))).toContain('breaks off in the middle');
    expect(refusal(readStatements(camt('').replace('<Document', '<!DOCTYPE x [<!ENTITY a "b">]><Document')))).toContain(
      'never read',
    );
    expect(refusal(readStatements(camt(entry('50.001'))))).toContain('more decimals than EUR');
    expect(refusal(readStatements(camt(entry('50.00').replace('Ccy="EUR"', 'Ccy="USD"'))))).toContain(
      'the amount is in USD, the account in EUR',
    );
    expect(checkStatement(only(readStatements(camt(entry('50.00'), '50.01'))))[0]).toContain('-0.01 does not agree');
  });
});

/** Written by hand by OFX 2.2 section 11 and 1.0.2 (from memory): the XML and the SGML say the same. */
describe('OFX', () => {
  const body = (close: (tag: string) => string) => {
    const e = (tag: string, value: string) => `<${tag}>${value}${close(tag)}\n`;
    return `<OFX><CREDITCARDMSGSRSV1><CCSTMTTRNRS><CCSTMTRS>${e('CURDEF', 'EUR')}<CCACCTFROM>${e('ACCTID', 'XXXX4410')}</CCACCTFROM>
<BANKTRANLIST>${e('DTSTART', '20260301')}${e('DTEND', '20260331')}<STMTTRN>${e('TRNTYPE', 'DEBIT')}${e('DTPOSTED', '20260303120000[0:GMT]')}${e('DTUSER', '20260302')}${e('TRNAMT', '-50.50')}${e('FITID', 'F1')}${e('SIC', '5411')}${e('NAME', 'QUAY &amp; SONS')}<ORIGCURRENCY>${e('CURRATE', '0.92305')}${e('CURSYM', 'USD')}</ORIGCURRENCY></STMTTRN></BANKTRANLIST>
<LEDGERBAL>${e('BALAMT', '-50.50')}${e('DTASOF', '20260331')}</LEDGERBAL></CCSTMTRS></CCSTMTTRNRS></CREDITCARDMSGSRSV1></OFX>\n`;
  };
  it.each([
    ['SGML', 'OFXHEADER:100\nDATA:OFXSGML\n\n', () => ''],
    ['XML', '<?xml version="1.0"?><?OFX OFXHEADER="200"?>', (tag: string) => `</${tag}>`],
  ])('is read as %s', (_, head, close) => {
    const statement = only(readStatements(head + body(close)));
    expect(statement).toMatchObject({ account: 'XXXX4410', closing: '-50.50', from: '2026-03-01' });
    expect(statement.entries).toEqual([
      {
        reference: 'F1',
        bookedOn: '2026-03-03',
        purchasedOn: '2026-03-02',
        settled: '50.50',
        charged: { amount: '54.71', currency: 'USD' },
        merchant: 'QUAY & SONS',
        country: null,
        categoryCode: '5411',
      },
    ]);
  });
  it('that breaks off is refused, and a rate with too few digits gives no original amount', () => {
    const whole = `OFXHEADER:100\n\n${body(() => '')}`;
    expect(refusal(readStatements(whole.slice(0, -60)))).toContain('breaks off in the middle');
    expect(only(readStatements(whole.replace('0.92305', '0.9'))).entries[0]!.charged).toBeNull();
  });
});

describe('a table', () => {
  const text =
    '\ufeffBuchungsdatum;Betrag;Händler;Referenz\r\n02.03.2026;1.234,56;"Quay; ""Sons""";A1\r\n31.02.2026;5,00;X;A2\r\n03.03.2026;1e9;X;A3\r\n03.03.2026;-0;X;A4\r\n03.03.2026;１２３;X;A5\r\n25.03.2026;-7,5;\u202eevil;A6\r\n';
  const table = () => {
    const read = readTable(text);
    if (!read.ok) throw new Error(read.says);
    return read.table;
  };
  it('with semicolons, decimal commas and a byte-order mark proposes its own columns', () => {
    expect(proposeMapping(table())).toMatchObject({
      delimiter: ';',
      mark: ',',
      spent: 'positive',
      date: 0,
      amount: 1,
      merchant: 2,
      reference: 3,
    });
  });
  it('keeps good rows and names what is wrong in which line', () => {
    const mapping: Mapping = {
      delimiter: ';',
      mark: ',',
      order: 'dmy',
      spent: 'positive',
      date: 0,
      amount: 1,
      merchant: 2,
      purchased: null,
      reference: 3,
      originalAmount: null,
      originalCurrency: null,
      categoryCode: null,
      credit: null,
      side: null,
      currency: null,
    };
    const { entries, problems } = entriesOfTable(table(), mapping, { currency: 'EUR' });
    expect(entries.map((e) => [e.reference, e.settled, e.merchant])).toEqual([
      ['A1', '1234.56', 'Quay; "Sons"'],
      ['A6', '-7.50', 'evil'],
    ]);
    expect(problems.map((p) => p.line)).toEqual([3, 4, 5, 6]);
    expect(problems.map((p) => p.says).join('\n')).toMatch(
      /31\.02\.2026.*\n.*1e9.*\n.*zero with a sign\n.*other digits/,
    );
  });
  it('that is broken says at which line, and other text is no table', () => {
    const broken = readTable('a;b;c\n1;"2;3\n4;5;6');
    expect(broken.ok ? '' : broken.says).toContain('quotation mark');
    expect(readTable('hello').ok).toBe(false);
    expect(readTable('a;b;c\n').ok).toBe(false);
  });
  it('is read as Shift_JIS, or in letters of Central Europe, where it makes words of them', () => {
    expect(textOf(Buffer.from('93fa95742c935896bc2c8be08a7a0a', 'hex'))).toBe('日付,店名,金額\n');
    expect(textOf(Buffer.concat([Buffer.from('Op'), Buffer.from([0xb3]), Buffer.from('aty')]))).toBe('Opłaty');
    expect(textOf(Buffer.concat([Buffer.from('Ksi'), Buffer.from([0xb1]), Buffer.from('g')]))).toBe('Ksiąg');
  });
  it('is refused where its letters cannot be told', () => {
    // "Дата;Сумма" in windows-1251, and headings in GBK
    for (const hex of ['c4e0f2e03bd1f3ecece0', 'c8d5c6da3bbdf0b6ee3bc9ccbca7'])
      expect(() => textOf(Buffer.from(hex, 'hex'))).toThrow('Save it as UTF-8');
  });
  it('is read as windows-1252 where it is not UTF-8', () => {
    expect(textOf(Buffer.from([0x48, 0xe4, 0x6e]))).toBe('Hän');
    expect(textOf(Buffer.from('Café Zoë: Fähre für 5 £; øl, Åre', 'latin1'))).toContain('Fähre für 5 £; øl');
  });
});
