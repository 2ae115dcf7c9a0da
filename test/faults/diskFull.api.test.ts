import { spawnSync } from 'node:child_process';
import { chownSync, mkdirSync, mkdtempSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { pdf } from '../fixtures/badReceipts.ts';
import { startApi, type Client, type TestApi } from '../fixtures/startApi.ts';

/**
 * A disk that is really full: files and history are moved to a small one (a tmpfs as a tablespace), which is then filled by
 * uploads. Needs the rights to mount and to make tablespaces; without them there is no such disk, and the test says so.
 */
const disk = mkdtempSync(join(tmpdir(), 'ebbet-disk-'));
const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=24m', 'tmpfs', disk]).status === 0;
const TABLES = ['receipt_files', 'receipt_pages', 'receipts', 'readings', 'events', 'event_words'];

let api: TestApi;
let tomas: Client;
beforeAll(async () => {
  api = await startApi('disk');
  tomas = await api.as('tomas.brandao');
});
afterAll(async () => {
  await api.close();
  if (mounted) spawnSync('umount', ['--lazy', disk]);
});

async function moveTo(tablespace: string): Promise<void> {
  for (const table of TABLES) await api.owner.raw(`alter table ${table} set tablespace ${tablespace}`);
}
async function upload(name: string): Promise<{ status: number; code?: string }> {
  const bytes = await pdf(1, [[name, '12.50']]);
  const form = new FormData();
  // What follows the end of a PDF is read by nobody, and does not compress.
  const rest = crypto.getRandomValues(new Uint8Array(60_000));
  const padding = Array.from({ length: 20 }, () => rest.map((b, i) => b ^ (i & 255) ^ Math.floor(Math.random() * 256)));
  form.append('file', new Blob([new Uint8Array(bytes), ...padding]), `${name}.pdf`);
  const { status, body } = await tomas.send('POST', '/receipts', form);
  return { status, code: body.code };
}
const kept = async () =>
  (
    await api.owner.raw(`select (select count(*)::int from receipts) as receipts,
      (select count(*)::int from receipts r where not exists (select 1 from receipt_files f where f.sha256 = r.sha256)) as torn,
      (select count(*)::int from events where record_kind = 'receipt' and kind = 'added') as added`)
  ).rows[0] as { receipts: number; torn: number; added: number };

describe.skipIf(!mounted)('a full disk', () => {
  it('loses nothing that was acknowledged, keeps nothing by half, says so, and is well once there is room', async () => {
    const place = join(disk, 'space');
    mkdirSync(place);
    const { rows } = await api.owner.raw('show data_directory');
    const { uid, gid } = statSync(rows[0].data_directory);
    chownSync(place, uid, gid);
    chownSync(disk, uid, gid);
    await api.owner.raw(`drop tablespace if exists ebbet_small`);
    await api.owner.raw(`create tablespace ebbet_small location '${place}'`);
    try {
      await moveTo('ebbet_small');
      const before = await kept();
      const answers: { status: number; code?: string }[] = [];
      while (answers.filter((a) => a.status !== 201).length < 3 && answers.length < 60)
        answers.push(await upload(`full-${answers.length}`));
      const taken = answers.filter((a) => a.status === 201).length;
      expect(answers.filter((a) => a.status !== 201).map((a) => [a.status, a.code])).toEqual(
        Array(3).fill([503, 'no-space']),
      );
      expect(taken).toBeGreaterThan(0);
      expect(await kept()).toEqual({ receipts: before.receipts + taken, torn: 0, added: before.added + taken });
      expect((await tomas.get('/receipts')).status).toBe(200);
      await moveTo('pg_default');
      expect((await upload('well-again')).status).toBe(201);
    } finally {
      await moveTo('pg_default');
      await api.owner.raw('drop tablespace ebbet_small');
    }
  });
});
