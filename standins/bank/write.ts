import { decimal, type AccountStatement, type Purchase } from './book.ts';

const xml = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');
const side = (minor: number): string => (minor < 0 ? 'CRDT' : 'DBIT');

/** ISO 20022 camt.053.001.02. An amount owed is a debit balance. */
export function writeCamt053(statements: readonly AccountStatement[], made: string): string {
  return `<?xml version="1.0" encoding="UTF-8"?>
<Document xmlns="urn:iso:std:iso:20022:tech:xsd:camt.053.001.02"><BkToCstmrStmt>
<GrpHdr><MsgId>M${made.replace(/\D/g, '')}</MsgId><CreDtTm>${made}</CreDtTm></GrpHdr>
${statements.map((s) => camtStatement(s, made)).join('\n')}
</BkToCstmrStmt></Document>
`;
}

function camtStatement(s: AccountStatement, made: string): string {
  const { currency } = s.card;
  const sum = s.purchases.reduce((a, p) => a + Math.abs(p.settled), 0);
  const balance = (code: string, owed: number, day: string) =>
    `<Bal><Tp><CdOrPrtry><Cd>${code}</Cd></CdOrPrtry></Tp><Amt Ccy="${currency}">${decimal(Math.abs(owed), currency)}</Amt><CdtDbtInd>${side(owed)}</CdtDbtInd><Dt><Dt>${day}</Dt></Dt></Bal>`;
  const totals = (name: string, belongs: (p: Purchase) => boolean) => {
    const own = s.purchases.filter(belongs);
    const total = own.reduce((a, p) => a + Math.abs(p.settled), 0);
    return `<${name}><NbOfNtries>${own.length}</NbOfNtries><Sum>${decimal(total, currency)}</Sum></${name}>`;
  };
  return `<Stmt><Id>${s.id}</Id><ElctrncSeqNb>1</ElctrncSeqNb><CreDtTm>${made}</CreDtTm><FrToDt><FrDtTm>${s.from}T00:00:00</FrDtTm><ToDtTm>${s.to}T23:59:59</ToDtTm></FrToDt>
<Acct><Id><Othr><Id>${s.card.id}</Id></Othr></Id><Ccy>${currency}</Ccy><Svcr><FinInstnId><BIC>SLTMIE2DXXX</BIC></FinInstnId></Svcr></Acct>
${balance('OPBD', s.owedBefore, s.from)}
${balance('CLBD', s.owedAfter, s.to)}
<TxsSummry><TtlNtries><NbOfNtries>${s.purchases.length}</NbOfNtries><Sum>${decimal(sum, currency)}</Sum></TtlNtries>${totals('TtlCdtNtries', (p) => p.settled < 0)}${totals('TtlDbtNtries', (p) => p.settled >= 0)}</TxsSummry>
${s.purchases.map((p) => camtEntry(p, currency)).join('\n')}
</Stmt>`;
}

function camtEntry(p: Purchase, currency: string): string {
  const party = p.settled < 0 ? 'Dbtr' : 'Cdtr';
  const original = p.charged
    ? `<AmtDtls><InstdAmt><Amt Ccy="${p.charged.currency}">${decimal(Math.abs(p.charged.amount), p.charged.currency)}</Amt></InstdAmt></AmtDtls>`
    : '';
  return `<Ntry><Amt Ccy="${currency}">${decimal(Math.abs(p.settled), currency)}</Amt><CdtDbtInd>${side(p.settled)}</CdtDbtInd><Sts>BOOK</Sts><BookgDt><Dt>${p.bookedOn}</Dt></BookgDt><ValDt><Dt>${p.bookedOn}</Dt></ValDt><AcctSvcrRef>${p.reference}</AcctSvcrRef><BkTxCd><Domn><Cd>PMNT</Cd><Fmly><Cd>CCRD</Cd><SubFmlyCd>POSD</SubFmlyCd></Fmly></Domn></BkTxCd><NtryDtls><TxDtls><Refs><AcctSvcrRef>${p.reference}</AcctSvcrRef></Refs>${original}<RltdPties><${party}><Nm>${xml(p.merchant)}</Nm><PstlAdr><Ctry>${p.country}</Ctry></PstlAdr><Id><OrgId><Othr><Id>${p.categoryCode}</Id><SchmeNm><Prtry>MCC</Prtry></SchmeNm></Othr></OrgId></Id></${party}></RltdPties><RltdDts><AccptncDtTm>${p.purchasedOn}T12:00:00</AccptncDtTm></RltdDts></TxDtls></NtryDtls></Ntry>`;
}

const day = (iso: string): string => iso.replaceAll('-', '');

/** OFX 1.0.2 in SGML, a credit card statement. */
export function writeOfx(s: AccountStatement): string {
  const { currency } = s.card;
  const entries = s.purchases.map(
    (p) => `<STMTTRN>
<TRNTYPE>${p.settled < 0 ? 'CREDIT' : 'DEBIT'}
<DTPOSTED>${day(p.bookedOn)}120000
<DTUSER>${day(p.purchasedOn)}120000
<TRNAMT>${decimal(-p.settled, currency)}
<FITID>${p.reference}
<SIC>${p.categoryCode}
<NAME>${xml(p.merchant.slice(0, 32))}${p.charged ? `\n<ORIGCURRENCY>\n<CURRATE>${rate(p, currency)}\n<CURSYM>${p.charged.currency}\n</ORIGCURRENCY>` : ''}
</STMTTRN>`,
  );
  return `OFXHEADER:100
DATA:OFXSGML
VERSION:102
SECURITY:NONE
ENCODING:UTF-8
CHARSET:NONE
COMPRESSION:NONE
OLDFILEUID:NONE
NEWFILEUID:NONE

<OFX>
<SIGNONMSGSRSV1>
<SONRS>
<STATUS>
<CODE>0
<SEVERITY>INFO
</STATUS>
<DTSERVER>${day(s.to)}120000
<LANGUAGE>ENG
</SONRS>
</SIGNONMSGSRSV1>
<CREDITCARDMSGSRSV1>
<CCSTMTTRNRS>
<TRNUID>0
<STATUS>
<CODE>0
<SEVERITY>INFO
</STATUS>
<CCSTMTRS>
<CURDEF>${currency}
<CCACCTFROM>
<ACCTID>${s.card.id}
</CCACCTFROM>
<BANKTRANLIST>
<DTSTART>${day(s.from)}
<DTEND>${day(s.to)}
${entries.join('\n')}
</BANKTRANLIST>
<LEDGERBAL>
<BALAMT>${decimal(-s.owedAfter, currency)}
<DTASOF>${day(s.to)}
</LEDGERBAL>
</CCSTMTRS>
</CCSTMTTRNRS>
</CREDITCARDMSGSRSV1>
</OFX>
`;
}

/** Settled over charged in major units, with eight decimals. */
function rate(p: Purchase, currency: string): string {
  const top = BigInt(Math.abs(p.settled)) * 10n ** BigInt(8 + placesOf(p.charged!.currency));
  const bottom = BigInt(Math.abs(p.charged!.amount)) * 10n ** BigInt(placesOf(currency));
  const scaled = String((top * 2n + bottom) / (2n * bottom)).padStart(9, '0');
  return `${scaled.slice(0, -8)}.${scaled.slice(-8)}`;
}
const placesOf = (currency: string): number => decimal(0, currency).replace(/^0\.?/, '').length;

/** SWIFT MT940. */
export function writeMt940(s: AccountStatement): string {
  const { currency } = s.card;
  const short = (iso: string) => day(iso).slice(2);
  const comma = (minor: number, code: string) => {
    const text = decimal(Math.abs(minor), code, ',');
    return text.includes(',') ? text : `${text},`;
  };
  const mark = (minor: number) => (minor < 0 ? 'C' : 'D');
  const entries = s.purchases.map((p) => {
    const original = p.charged ? `\r\n/OCMT/${p.charged.currency}${comma(p.charged.amount, p.charged.currency)}/` : '';
    return `:61:${short(p.purchasedOn)}${short(p.bookedOn).slice(2)}${mark(p.settled)}${comma(p.settled, currency)}NMSCNONREF//${p.reference}\r\n:86:${p.merchant}${original}`;
  });
  return [
    `:20:${s.card.id}${short(s.to)}`,
    `:25:${s.card.id}`,
    ':28C:1/1',
    `:60F:${mark(s.owedBefore)}${short(s.from)}${currency}${comma(s.owedBefore, currency)}`,
    ...entries,
    `:62F:${mark(s.owedAfter)}${short(s.to)}${currency}${comma(s.owedAfter, currency)}`,
    '-',
    '',
  ].join('\r\n');
}

/** A table as the bank's web page offers it: semicolons, decimal commas, day first, a byte-order mark. */
export function writeCsv(s: AccountStatement): string {
  const quoted = (text: string) => (/[;"\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text);
  const european = (iso: string) => iso.split('-').reverse().join('.');
  const rows = s.purchases.map((p) =>
    [
      european(p.bookedOn),
      european(p.purchasedOn),
      quoted(p.merchant),
      decimal(p.settled, s.card.currency, ','),
      p.charged ? decimal(p.charged.amount, p.charged.currency, ',') : '',
      p.charged?.currency ?? '',
      p.categoryCode,
      p.reference,
    ].join(';'),
  );
  const head = 'Booking date;Purchase date;Merchant;Amount;Original amount;Original currency;MCC;Reference';
  return `\ufeff${[head, ...rows].join('\r\n')}\r\n`;
}
