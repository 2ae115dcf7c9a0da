import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';

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
