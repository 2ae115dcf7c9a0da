import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';
import { journalText } from '../core/ledger/journalText.ts';
import { CHAIN_START, eventText } from '../core/workflow/eventText.ts';
import type { ExportedEvent } from '../core/workflow/verifyChain.ts';

const root = fileURLToPath(new URL('..', import.meta.url));
const bin = join(root, 'bin', 'ebbet');
const example = readFileSync(join(root, 'test', 'fixtures', 'case.json'), 'utf8');
const folder = mkdtempSync(join(tmpdir(), 'ebbet-'));
const file = (name: string, content: string): string => {
  writeFileSync(join(folder, name), content);
  return join(folder, name);
};
const ebbet = (args: string[], input = '') => spawnSync(bin, args, { input, encoding: 'utf8' });

describe('ebbet assess', () => {
  it('prints one assessment a line for files and standard input', () => {
    const named = ebbet(['assess', file('a.json', example), file('b.json', example)]);
    expect(named.status).toBe(0);
    expect(
      named.stdout
        .trim()
        .split('\n')
        .map((l) => JSON.parse(l).settlement.payable),
    ).toEqual(['96.53', '96.53']);
    expect(ebbet(['assess'], example).stdout).toBe(`${named.stdout.split('\n')[0]}\n`);
  });

  it('names the file, the line and the path of what is wrong, assesses the rest and exits with 2', () => {
    const wrong = example.replace('"202.00"', '"202.0"');
    const result = ebbet(['assess', file('wrong.json', wrong), file('right.json', example)]);
    expect(result.status).toBe(2);
    expect(result.stdout.trim().split('\n')).toHaveLength(1);
    const at = wrong.slice(0, wrong.indexOf('"202.0"')).split('\n').length;
    expect(result.stderr).toBe(
      `${join(folder, 'wrong.json')}:${at} claim.lines[0].amount: "202.0" is not an amount with the decimals of EUR\n`,
    );
  });

  it('reads JSON lines, each with its own line number', () => {
    const one = JSON.stringify(JSON.parse(example));
    const result = ebbet(['assess', '--jsonl'], `${one}\n\n{"format":1}\nnot json\n${one}\n`);
    expect(result.stdout.trim().split('\n')).toHaveLength(2);
    expect(result.stderr.split('\n').map((l) => l.split(' ')[1])).toEqual(['input:3', 'input:4', undefined]);
    expect(result.status).toBe(2);
  });

  it('says what it needs for files that are not there, wrong options and unknown commands', () => {
    expect(ebbet(['assess', '/nowhere.json'])).toMatchObject({
      status: 2,
      stderr: expect.stringContaining('/nowhere.json:1 document: cannot be read'),
    });
    expect(ebbet(['assess', '--fast'])).toMatchObject({ status: 2, stderr: expect.stringContaining('--fast') });
    expect(ebbet(['guess'])).toMatchObject({ status: 2, stderr: expect.stringContaining('no command "guess"') });
    expect(ebbet(['assess', '--help'])).toMatchObject({
      status: 0,
      stdout: expect.stringContaining('Usage: ebbet assess'),
    });
    expect(ebbet([])).toMatchObject({ status: 2, stdout: expect.stringContaining('Commands') });
  });

  it('takes a closed pipe for no error', async () => {
    const many = file('many.jsonl', `${JSON.stringify(JSON.parse(example))}\n`.repeat(400));
    const child = spawn('bash', [
      '-c',
      `set -o pipefail; "${bin}" assess --jsonl "${many}" | head -n 1 > /dev/null; echo "\${PIPESTATUS[0]}"`,
    ]);
    let [out, err] = ['', ''];
    child.stdout.on('data', (d) => (out += d));
    child.stderr.on('data', (d) => (err += d));
    await new Promise((resolve) => child.on('close', resolve));
    expect([out.trim(), err]).toEqual(['0', '']);
  });
});

describe('ebbet explain', () => {
  it('prints how the figures of a line came about, as text or as JSON lines', () => {
    const text = ebbet(['explain', '--line', '3'], example);
    expect(text).toMatchObject({ status: 0, stdout: expect.stringContaining('claimAmount = 23.80 EUR') });
    expect(text.stdout).toContain('own rate 1.19');
    const steps = ebbet(['explain', '--line', '1', '--json'], example)
      .stdout.trim()
      .split('\n')
      .map((l) => JSON.parse(l));
    expect(steps.find((s) => s.figure === 'tax PT-6')).toMatchObject({ rule: '10', result: '11.43' });
  });
  it('needs a line that is there', () => {
    expect(ebbet(['explain'], example)).toMatchObject({
      status: 2,
      stderr: expect.stringContaining('--line is missing'),
    });
    expect(ebbet(['explain', '--line', '9'], example)).toMatchObject({
      status: 2,
      stderr: 'standard input:1 claim.lines: there is no line "9"\n',
    });
  });
});

describe('ebbet split', () => {
  it('loses nothing, in any currency and sign', () => {
    expect(ebbet(['split', '100.00', 'EUR', '1', '1', '1']).stdout).toBe('33.34\n33.33\n33.33\n');
    expect(ebbet(['split', '100', 'EUR', '1', '1', '1']).stdout).toBe('33.34\n33.33\n33.33\n');
    expect(ebbet(['split', '-1', 'BHD', '1', '1']).stdout).toBe('-0.500\n-0.500\n');
    expect(ebbet(['split', '-100', 'JPY', '50', '30.5', '19.5']).stdout).toBe('-50\n-31\n-19\n');
    expect(ebbet(['split', '0.001', 'BHD', '1', '2']).stdout).toBe('0.000\n0.001\n');
  });
  it('says what is wrong', () => {
    const wrong = (...args: string[]) => ebbet(['split', ...args]).stderr;
    expect(wrong('1.0', 'EUR', '1')).toContain('"1.0" is not an amount with the decimals of EUR');
    expect(wrong('1.00', 'XAU', '1')).toContain('not an ISO 4217 currency');
    expect(wrong('1.00', 'EUR', '0', '0')).toContain('all 0');
    expect(wrong('1.00', 'EUR', '-1')).toContain('negative');
    expect(wrong('1.00', 'EUR')).toContain('at least one weight');
  });
});

describe('ebbet convert', () => {
  const rates = JSON.stringify({
    pivot: 'EUR',
    rates: [
      { from: 'EUR', to: 'JPY', date: '2026-03-02', rate: '163.4' },
      { from: 'EUR', to: 'USD', date: '2026-03-02', rate: '1.25' },
    ],
  });
  it('takes the rates of a case or of a document of their own', () => {
    expect(ebbet(['convert', '100.00', 'USD', 'EUR', '--date', '2026-03-03'], example).stdout).toBe(
      '92.30 EUR\n1 EUR = 1.0834 USD, turned round, 2026-03-02, …\n',
    );
    expect(ebbet(['convert', '-10.00', 'USD', 'JPY', '--date', '2026-03-03'], rates).stdout.split('\n')[0]).toBe(
      '-1307 JPY',
    );
  });
  it('says when there is no rate, and what is wrong with the call or the file', () => {
    expect(ebbet(['convert', '1.00', 'USD', 'EUR', '--date', '2026-03-20'], rates)).toMatchObject({
      status: 2,
      stderr: expect.stringContaining('no rate from USD to EUR'),
    });
    expect(ebbet(['convert', '1.00', 'USD', 'EUR', '--date', '2026-02-31'], rates).stderr).toContain('--date must be');
    expect(
      ebbet(['convert', '1.00', 'USD', 'EUR', '--date', '2026-03-02'], '{"rates":[{"from":"EUR"}]}').stderr,
    ).toContain('rates[0].to: is missing');
  });
});

describe('ebbet schema', () => {
  it.each(['case-1', 'assessment-1', 'event-2', 'journal-1'])('is what docs/schemas holds: ebbet-%s', (name) => {
    const kept = readFileSync(join(root, 'docs', 'schemas', `ebbet-${name}.json`), 'utf8');
    expect(ebbet(['schema', `ebbet-${name.replace('-', '/')}`]).stdout).toBe(kept);
  });
  it('knows its formats', () => {
    expect(ebbet(['schema', 'pdf'])).toMatchObject({ status: 2, stderr: expect.stringContaining('ebbet-case/1') });
  });
});

describe('ebbet verify', () => {
  const sha256 = (text: string) => createHash('sha256').update(text).digest('hex');
  const chain = (record: string, count: number): ExportedEvent[] => {
    let previousHash = CHAIN_START;
    return Array.from({ length: count }, (_, i) => {
      const event = {
        recordKind: 'claim',
        recordId: record,
        seq: i + 1,
        at: `2026-03-0${i + 1}T10:00:00.000Z`,
        actor: 'P1',
        kind: 'marked',
        facts: { line: '1' },
        about: null,
        privateHash: null,
        previousHash,
      };
      previousHash = sha256(eventText(event));
      return { format: 'ebbet-event/2' as const, ...event, hash: previousHash };
    });
  };
  const lines = (events: object[]) => events.map((e) => `${JSON.stringify(e)}\n`).join('');
  const whole = [...chain('1', 3), ...chain('2', 2)];

  it('finds an untouched history intact', () => {
    expect(ebbet(['verify'], lines(whole))).toMatchObject({ status: 0, stdout: '5 events of 2 records, intact\n' });
  });
  it('finds a change, a gap, an exchange and an insertion, each at its line', () => {
    const fault = (events: object[]) => ebbet(['verify'], lines(events));
    expect(fault(whole.map((e, i) => (i === 1 ? { ...e, actor: 'P2' } : e)))).toMatchObject({
      status: 1,
      stderr: expect.stringContaining('standard input:2 claim 1, event 2 is not what was written'),
    });
    expect(fault(whole.filter((_, i) => i !== 1)).stderr).toContain(
      'standard input:2 claim 1, event 3 comes after a gap',
    );
    expect(fault([whole[1]!, whole[0]!]).status).toBe(1);
    expect(fault([...whole, whole[4]!]).stderr).toContain('out of order or repeated');
  });
  it('shows a cut tail against seals that were kept', () => {
    const seals = ebbet(['verify', '--seals'], lines(whole)).stdout;
    const kept = file('seals.jsonl', seals);
    expect(ebbet(['verify', '--against', kept], lines(whole)).status).toBe(0);
    expect(ebbet(['verify', '--against', kept], lines([...whole, ...chain('1', 4).slice(3)])).status).toBe(0);
    const cut = ebbet(['verify', '--against', kept], lines(whole.slice(0, 4)));
    expect(cut).toMatchObject({
      status: 1,
      stderr: expect.stringContaining('claim 2, event 2 was there when it was sealed'),
    });
  });
  it('checks journals that are handed in, and that each is the one its event is about', () => {
    const row = (position: number, debit: string, credit: string) => ({
      position,
      account: '6210',
      coding: {},
      debit,
      credit,
      currency: 'EUR',
      amount: debit === '0.00' ? `-${credit}` : debit,
      line: null,
      item: null,
      taxCode: null,
      text: '',
    });
    const plain = {
      format: 'ebbet-journal/1' as const,
      number: 'IE-000001',
      entity: 'IE',
      currency: 'EUR',
      date: '2026-03-01',
      purpose: 'claim',
      source: { kind: 'claim', id: 'C-1/1' },
      reverses: null,
      corrects: null,
      rows: [row(1, '5.00', '0.00'), row(2, '0.00', '5.00')],
    };
    const journal = { ...plain, hash: sha256(journalText(plain)) };
    const [first] = chain('1', 1);
    const {
      format: _,
      hash: __,
      ...said
    } = { ...first!, kind: 'posted', facts: { journal: 'IE-000001' }, about: journal.hash };
    const posted = { format: 'ebbet-event/2', ...said, hash: sha256(eventText(said)) };
    const verify = (journals: object[], events: object[] = [posted]) =>
      ebbet(['verify', '--journals', file(`journals-${Math.random()}.jsonl`, lines(journals))], lines(events));
    expect(verify([journal])).toMatchObject({ status: 0, stdout: '1 events of 1 records, intact\n' });
    expect(verify([{ ...journal, date: '2026-03-02' }]).stderr).toContain('IE-000001 is not what was posted');
    const lost = { ...plain, rows: [plain.rows[0]!] };
    expect(verify([{ ...lost, hash: sha256(journalText(lost)) }]).stderr).toContain('IE-000001 is out of balance');
    expect(verify([]).stderr).toContain('IE-000001, which event 1 of claim 1 is about, is missing');
    const other = { ...plain, date: '2026-03-02' };
    expect(verify([{ ...other, hash: sha256(journalText(other)) }]).stderr).toContain(
      'is another than event 1 of claim 1 is about',
    );
    expect(verify([journal], chain('1', 1)).stderr).toContain('IE-000001 was posted without an event');
  });
  it('refuses what is no history', () => {
    expect(ebbet(['verify'], '{"format":"ebbet-event/2"}\n')).toMatchObject({
      status: 2,
      stderr: expect.stringContaining('recordKind: is missing'),
    });
  });
});
