import { mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pino from 'pino';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { bareServices } from '../../../test/fixtures/bareServices.ts';
import { startApi, type TestApi } from '../../../test/fixtures/startApi.ts';
import type { Services } from '../../platform/context.ts';
import { sha256 } from '../../platform/history/sha256.ts';
import type { Letter } from '../../platform/ports/mail.ts';
import { sendSeals } from './seals.service.ts';

let api: TestApi;
let services: Services;
let refuses = false;
const folder = mkdtempSync(join(tmpdir(), 'ebbet-seals-'));
const letters: Letter[] = [];
beforeAll(async () => {
  api = await startApi('seals');
  const send = async (letter: Letter) => {
    if (refuses) throw new Error('no mail today');
    letters.push(letter);
  };
  const seals = { folder, mailboxes: ['auditor@saltmarsh.example'] };
  services = { ...bareServices(api.app), mailer: { send }, seals, log: pino({ level: 'silent' }) };
});
afterAll(() => api.close());

const sealsOf = (content: string) =>
  content
    .trim()
    .split('\n')
    .filter(Boolean)
    .map((line) => JSON.parse(line));
const ends = async () => {
  const { rows } = await api.owner.raw(
    `select record_kind || ' ' || record_id as record, max(seq) as seq from events group by 1 order by 1`,
  );
  return rows;
};

it('the ends of all chains are sent to every place, then those that moved', async () => {
  await sendSeals(services);
  const [{ attachments, text }] = letters as [Letter];
  const all = sealsOf(attachments![0]!.content);
  expect(all.map(({ record, seq }) => ({ record, seq })).sort((a, b) => (a.record < b.record ? -1 : 1))).toEqual(
    (await ends()).sort((a: any, b: any) => (a.record < b.record ? -1 : 1)),
  );
  expect(text).toContain(sha256(attachments![0]!.content));
  expect(readFileSync(join(folder, attachments![0]!.filename), 'utf8')).toBe(attachments![0]!.content);

  const maeve = await api.as('maeve.tarrant');
  const { claim } = (await maeve.get('/claims/C-1002')).body;
  const held = await maeve.post('/claims/C-1002/hold', {
    revision: claim.revision,
    reason: 'waits for the ferry',
    until: '2027-01-15',
  });
  expect(held.status).toBe(200);
  await api.owner('sealings').update({ at: new Date() });
  await sendSeals(services);
  const next = sealsOf(letters.at(-1)!.attachments![0]!.content);
  expect(next.length).toBeLessThan(all.length);
  expect(next).toContainEqual(expect.objectContaining({ record: `claim ${await idOf('C-1002')}` }));
});

it('what could not be sent is in the next seals', async () => {
  const sent = await api.owner('sealings').count({ n: '*' }).first();
  refuses = true;
  await expect(sendSeals(services)).rejects.toThrow();
  refuses = false;
  expect(await api.owner('sealings').count({ n: '*' }).first()).toEqual(sent);
  expect(readdirSync(folder).every((name) => name.startsWith('seals-'))).toBe(true);
});

const idOf = async (number: string): Promise<string> => {
  const { rows } = await api.owner.raw(
    `select distinct record_id from events where record_kind = 'claim' and record_id in (?, (select id::text from claims where number = ?))`,
    [number, number],
  );
  return rows[0].record_id;
};
