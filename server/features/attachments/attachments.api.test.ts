import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addDays } from '../../../core/numbers/isoDate.ts';
import { handIn, viewOf } from '../../../test/fixtures/acts.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';
import { picture, sendFile } from '../../../test/fixtures/sendFile.ts';

/** Files beside claims and plans, and bookings with theirs. */
let api: TestApi;
let tomas: Client;
let hedda: Client;
let siobhan: Client;
let maeve: Client;
beforeAll(async () => {
  api = await startApi('attachments');
  [tomas, hedda, siobhan, maeve] = (await Promise.all(
    ['tomas.brandao', 'hedda.vestergaard', 'siobhan.odowd', 'maeve.tarrant'].map((mail) => api.as(mail)),
  )) as [Client, Client, Client, Client];
});
afterAll(() => api.close());

const PLAIN = { costCentre: '410', fund: '10' };
const today = new Date().toISOString().slice(0, 10);
const page = async (who: Client, id: string) => (await who.get(`/attachments/${id}/pages/1`)).status;

describe('the files of a claim', () => {
  const line = { date: '2026-11-02', amount: { amount: '12.30', currency: 'EUR' }, category: 'supplies' };
  async function begun(): Promise<string> {
    const { number } = (await tomas.post('/drafts', { purpose: 'Terns', coding: PLAIN })).body;
    await tomas.post(`/drafts/${number}/lines`, { revision: 1, lines: [line] });
    return number;
  }
  const revision = async (of: string) => (await viewOf(tomas, of)).claim.revision;
  const add = async (of: string, shade: number, who = tomas) =>
    sendFile(who, `/drafts/${of}/attachments?revision=${await revision(of)}`, await picture(shade), 'minutes.png');
  const off = async (of: string, id: string) =>
    tomas.send('DELETE', `/drafts/${of}/attachments/${id}?revision=${await revision(of)}`);

  it('are its makers’ until it is handed in, then its approver’s and finance’s too', async () => {
    const number = await begun();
    const added = await add(number, 10);
    expect(added.status).toBe(201);
    const [file] = added.body.attachments;
    expect([file.name, file.by, file.pages.length]).toEqual(['minutes.png', 'Tomás Brandão', 1]);
    expect([await page(tomas, file.id), await page(siobhan, file.id), await page(maeve, file.id)]).toEqual([
      200, 404, 404,
    ]);
    await handIn(tomas, number);
    expect([await page(siobhan, file.id), await page(maeve, file.id), await page(hedda, file.id)]).toEqual([
      200, 200, 404,
    ]);
    expect((await viewOf(maeve, number)).attachments.map((a: any) => a.id)).toEqual([file.id]);
    expect((await tomas.get(`/attachments/${file.id}/pages/2`)).status).toBe(404);
    expect((await viewOf(maeve, number)).attachments.map((a: any) => a.id)).toEqual([file.id]);
    expect((await tomas.get(`/attachments/${file.id}/pages/2`)).status).toBe(404);
    expect((await add(number, 11)).body.code).toBe('wrong-state');
  });

  it('stay with the version they went out with, whatever becomes of them in the next one', async () => {
    const number = await begun();
    const first = (await add(number, 20)).body.attachments[0];
    await handIn(tomas, number);
    const back = { revision: (await viewOf(siobhan, number)).claim.revision, reason: 'Other minutes' };
    await siobhan.post(`/claims/${number}/return`, back);
    const gone = await off(number, first.id);
    expect(gone.body.attachments).toEqual([]);
    const second = (await add(number, 21)).body.attachments[0];
    const before = await viewOf(maeve, number);
    expect(before.attachments.map((a: any) => a.id)).toEqual([first.id]);
    expect([await page(maeve, second.id), await page(maeve, first.id)]).toEqual([404, 200]);
    await handIn(tomas, number, 'resubmit');
    expect((await viewOf(siobhan, number)).attachments.map((a: any) => a.id)).toEqual([second.id]);
    const frozen = await api
      .owner('claim_versions as v')
      .join('claims as c', 'c.id', 'v.claim_id')
      .where({ number })
      .orderBy('v.version')
      .pluck('v.submitted');
    expect(frozen.map((f) => f.attachments.map((a: any) => a.sha256.length))).toEqual([[64], [64]]);
    expect(frozen[0].attachments[0].sha256).not.toBe(frozen[1].attachments[0].sha256);
  });

  it('are looked at by their content, refused by name, taken off by their makers, and not without end', async () => {
    const number = await begun();
    const bad = await sendFile(
      tomas,
      `/drafts/${number}/attachments?revision=${await revision(number)}`,
      Buffer.from('MZ nothing'),
      'a.png',
    );
    expect([bad.status, bad.body.says]).toEqual([422, expect.stringContaining('a.png')]);
    const file = (await add(number, 30)).body.attachments[0];
    expect((await add(number, 31, siobhan)).status).toBe(404);
    const other = await begun();
    expect((await off(other, file.id)).status).toBe(404);
    expect((await off(number, file.id)).body.attachments).toEqual([]);
    expect(await page(tomas, file.id)).toBe(404);
    const { id } = await api.owner('claims').where({ number }).first('id');
    const { sha256 } = await api.owner('receipt_files').first('sha256');
    const rows = Array.from({ length: 50 }, (_, i) => ({
      claim_id: id,
      sha256,
      name: `${i}`,
      by_id: 'P05',
      at: new Date(),
    }));
    await api.owner('attachments').insert(rows);
    expect((await add(number, 32)).body.code).toBe('many-attachments');
  });
});

describe('bookings', () => {
  const TRIP = {
    purpose: 'Seagrass count',
    kind: 'field-abroad',
    country: 'PT',
    from: addDays(today, 10),
    to: addDays(today, 14),
  };
  const view = async (number: string, who = tomas) => (await who.get(`/plans/${number}`)).body;
  const revision = async (number: string, who = tomas) => (await view(number, who)).plan.revision;
  async function approved(): Promise<string> {
    const { number } = (await tomas.post('/plans', { ...TRIP, coding: PLAIN })).body;
    for (const [id, amount] of [
      ['1', '300.00'],
      ['4', '90.00'],
      ['5', '20.00'],
    ]) {
      const set = { price: { amount, currency: 'EUR' } };
      await tomas.put(`/plans/${number}/estimates`, { revision: await revision(number), ids: [id], set });
    }
    await tomas.post(`/plans/${number}/submit`, { revision: await revision(number) });
    const answer = await siobhan.post(`/plans/${number}/approve`, { revision: await revision(number, siobhan) });
    expect(answer.status).toBe(200);
    return number;
  }
  const FLIGHT = {
    estimate: '1',
    what: 'Flight to Lisbon',
    date: addDays(today, 10),
    options: [
      { says: 'Gannet Air', amount: '310.40', currency: 'EUR' },
      { says: 'Petrel', amount: '280.00', currency: 'EUR' },
    ],
    chosen: 1,
    paidBy: 'central' as const,
    confirmation: 'QX7',
  };
  const book = async (number: string, fields = {}, who = hedda) =>
    who.post(`/plans/${number}/bookings`, { revision: await revision(number), booking: { ...FLIGHT, ...fields } });

  it('are recorded by whoever prepares for others, who sees approved plans of their entity, and no others', async () => {
    const draft = (await tomas.post('/plans', { ...TRIP, coding: PLAIN })).body.number;
    expect((await view(draft, hedda)).code).toBe('not-found');
    expect((await book(draft)).status).toBe(404);
    const number = await approved();
    const shown = await view(number, hedda);
    // something the rules say of it, which is between its makers and its approver
    const told = JSON.stringify([{ code: 'cap', severity: 'ask', line: '2', says: 'Above the limit.' }]);
    await api.owner.raw(`update plans set assessed = jsonb_set(assessed, '{findings}', ?::jsonb) where number = ?`, [
      told,
      number,
    ]);
    expect((await view(number)).problems.map((p: any) => p.says)).toEqual(['Above the limit.']);
    expect((await view(number, hedda)).problems).toEqual([]);
    expect([shown.may.includes('book'), shown.problems, shown.history]).toEqual([true, [], []]);
    expect(['claim', 'withdraw', 'edit'].filter((act) => shown.may.includes(act))).toEqual([]);
    expect((await hedda.get('/plans')).body.toBook.map((p: any) => p.number)).toContain(number);
    expect((await book(number, {}, tomas)).body.code).toBe('not-allowed');
    expect((await tomas.get('/plans')).body.toBook).toEqual([]);
    const booked = await book(number);
    expect(booked.body.bookings).toMatchObject([{ ...FLIGHT, by: 'Hedda Vestergaard' }]);
    expect((await view(number)).bookings).toHaveLength(1);
    await api.owner('person_roles').where({ person_id: 'P13', role: 'preparer' }).update({ entity_id: 'JP' });
    expect((await view(number, hedda)).code).toBe('not-found');
    expect((await hedda.get('/plans')).body.toBook.map((p: any) => p.number)).not.toContain(number);
    await api.owner('person_roles').where({ person_id: 'P13', role: 'preparer' }).update({ entity_id: null });
  });

  it('are checked, changed, and taken off', async () => {
    const number = await approved();
    for (const [fields, status] of [
      [{ chosen: 2 }, 400],
      [{ estimate: '99' }, 404],
      [{ options: [] }, 400],
      [{ options: [{ says: 'A', amount: '1.234', currency: 'EUR' }], chosen: 0 }, 400],
      [{ paidBy: 'own' }, 400],
      [{ what: 'x'.repeat(141) }, 400],
    ] as const)
      expect([fields, (await book(number, fields)).status]).toEqual([fields, status]);
    const { id } = (await book(number, { chosen: null })).body.bookings[0];
    const edit = async (set: object) =>
      hedda.put(`/plans/${number}/bookings/${id}`, { revision: await revision(number), set });
    expect((await edit({ chosen: 0, confirmation: null })).body.bookings[0]).toMatchObject({
      chosen: 0,
      confirmation: null,
      what: FLIGHT.what,
    });
    expect((await edit({ options: FLIGHT.options.slice(0, 1), chosen: 1 })).status).toBe(400);
    const other = await approved();
    const elsewhere = await hedda.put(`/plans/${other}/bookings/${id}`, {
      revision: await revision(other),
      set: { chosen: 0 },
    });
    expect(elsewhere.status).toBe(404);
    const gone = await hedda.send('DELETE', `/plans/${number}/bookings/${id}?revision=${await revision(number)}`);
    expect(gone.body.bookings).toEqual([]);
  });

  it('become lines of the claim, paid by card or centrally, with their ticket; not once it is begun', async () => {
    const number = await approved();
    const ticket = await picture(77);
    const { id } = (await book(number)).body.bookings[0];
    const sent = await sendFile(
      hedda,
      `/plans/${number}/bookings/${id}/attachments?revision=${await revision(number)}`,
      ticket,
      'ticket.png',
    );
    const [file] = sent.body.bookings[0].attachments;
    expect([
      await page(tomas, file.id),
      await page(hedda, file.id),
      await page(await api.as('aoi.kuramochi'), file.id),
    ]).toEqual([200, 200, 404]);
    const yen = {
      what: 'Rooms',
      date: today,
      estimate: '2',
      paidBy: 'card',
      options: [{ says: 'Pensão', amount: '40000', currency: 'JPY' }],
      chosen: 0,
      confirmation: null,
    };
    await book(number, yen);
    await book(number, { what: 'Boat', chosen: null });
    const claim = (await tomas.post(`/plans/${number}/claim`, { revision: await revision(number) })).body.number;
    const { document, receipts, settlement } = await viewOf(tomas, claim);
    const said = document.lines.map((l: any) => [
      l.id,
      l.paidBy,
      l.amount,
      l.currency,
      l.category,
      l.estimate,
      l.merchant,
    ]);
    expect(said).toEqual([
      ['1', 'central', '280.00', 'EUR', 'air', '1', 'Petrel'],
      ['2', 'card', '40000', 'JPY', 'lodging', '2', 'Pensão'],
    ]);
    expect(document.lines[0].description).toBe('Flight to Lisbon, QX7');
    expect(settlement.toPay).toBe('0.00');
    const own = (await tomas.get('/receipts')).body.receipts.find((r: any) => r.id === receipts['1'].id);
    expect([own.name, own.usedOn.map((u: any) => u.claim)]).toEqual(['ticket.png', [claim]]);
    expect((await book(number)).body.code).toBe('plan-claimed');
    const more = { date: today, amount: { amount: '9.00', currency: 'EUR' }, category: 'meal' };
    const added = await tomas.post(`/drafts/${claim}/lines`, { revision: 1, lines: [more] });
    expect(added.body.document.lines.map((l: any) => l.id)).toEqual(['1', '2', '3']);
  });
});

describe('the files of a plan', () => {
  it('are added and taken off while it is a draft, each from the plan it is on', async () => {
    const { number } = (await tomas.post('/plans', { purpose: 'Terns', kind: 'training', coding: PLAIN })).body;
    const add = async (who: Client, rev: number) =>
      sendFile(who, `/plans/${number}/attachments?revision=${rev}`, await picture(90), 'leaflet.png');
    const added = await add(tomas, 1);
    const [file] = added.body.attachments;
    expect([file.name, await page(tomas, file.id), await page(siobhan, file.id)]).toEqual(['leaflet.png', 200, 404]);
    expect((await add(tomas, 1)).body.code).toBe('stale');
    expect((await add(siobhan, 2)).status).toBe(404);
    const other = (await tomas.post('/plans', { purpose: 'Gulls', kind: 'training', coding: PLAIN })).body.number;
    expect((await tomas.send('DELETE', `/plans/${other}/attachments/${file.id}?revision=1`)).status).toBe(404);
    const gone = await tomas.send('DELETE', `/plans/${number}/attachments/${file.id}?revision=2`);
    expect(gone.body.attachments).toEqual([]);
  });
});
