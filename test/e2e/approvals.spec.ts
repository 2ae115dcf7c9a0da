import { expect, test, type Browser, type Page } from '@playwright/test';
import { todayHere } from '../../web/parts/today.ts';
import { addDays } from '../../core/numbers/isoDate.ts';
import { goToRow, pageOf, tabTo } from './people.ts';

const yesterday = addDays(todayHere(), -1);

/** A claim of Tomás with these lines, handed in over HTTP; its number. */
async function handedIn(page: Page, purpose: string, lines: object[]): Promise<string> {
  const send = async (path: string, data: object) => {
    const answer = await page.request.post(`/api${path}`, { data });
    expect([path, answer.status(), answer.ok() ? '' : await answer.text()]).toEqual([path, answer.status(), '']);
    return answer.json();
  };
  const { number } = await send('/drafts', { purpose, coding: { costCentre: '430', fund: '10' } });
  const written = await send(`/drafts/${number}/lines`, { revision: 1, lines });
  let { claim } = written;
  for (const { line, code, says } of written.findings.filter((f: { severity: string }) => f.severity === 'ask')) {
    const said = { revision: claim.revision, line, code, about: says, text: 'It was agreed.' };
    ({ claim } = await (await page.request.put(`/api/drafts/${number}/explanations`, { data: said })).json());
  }
  await send(`/claims/${number}/submit`, { revision: claim.revision, accepted: 'policy' });
  return number;
}
const line = (amount: string, merchant: string, coding: object) => ({
  ...{ date: yesterday, amount: { amount, currency: 'EUR' }, category: 'supplies', merchant, coding },
});

/** Opens a record that waits from the list, by keyboard alone, and approves it. */
async function approve(browser: Browser, mail: string, number: string): Promise<void> {
  const page = await pageOf(browser, mail);
  await page.goto('/approvals');
  const row = page.getByRole('link', { name: new RegExp(number) }).first();
  await goToRow(page, row);
  await page.keyboard.press('Enter');
  await page.waitForURL(new RegExp(`/${number}$`));
  await page.getByRole('button', { name: 'Approve', exact: true }).waitFor();
  await page.keyboard.press('y');
  await expect(page.getByText(`${number} is approved`)).toBeVisible();
  await page.context().close();
}

test('a claim over three tiers, with its owners and a substitute, is approved by keyboard alone', async ({
  browser,
}) => {
  const keeper = await pageOf(browser, 'leilani.kahue');
  const away = { person: 'P03', substitute: 'P02' };
  const rows = await (await keeper.request.get('/api/setup/substitutes')).json();
  const revision = rows.rows.find((r: { key: string[] }) => r.key[0] === 'P03')?.revision ?? 0;
  const put = { revision, row: away, validFrom: yesterday, validTo: null };
  expect((await keeper.request.post('/api/setup/substitutes', { data: put })).status()).toBeLessThan(300);

  const tomas = await pageOf(browser, 'tomas.brandao');
  const number = await handedIn(tomas, 'Boats for the whole season', [
    line('1600.00', 'Bannow Boats', { costCentre: '430', fund: '10', project: 'FLAT-07', spendType: 'materials' }),
    line('4400.00', 'Wexford Chandlery', { costCentre: '430', fund: '10', project: 'REED-11', spendType: 'materials' }),
  ]);
  await tomas.goto(`/claims/${number}`);
  const route = tomas.getByRole('region', { name: 'Who decides about it' });
  await expect(route).toContainText('Siobhán O’Dowd');
  await expect(route).toContainText('Ren Isshiki Owners of projects and grants, about project FLAT-07');
  // the other owner is the usual approver, who decides once, about both
  await expect(route).toContainText('Siobhán O’Dowd decides already at step 1, also about project REED-11');
  await expect(route).toContainText('Odd Fjellheim: they are away; Inês Quadros decides, their substitute');

  await approve(browser, 'siobhan.odowd', number);
  await approve(browser, 'ren.isshiki', number);
  await approve(browser, 'ines.quadros', number);
  await tomas.reload();
  await expect(tomas.getByText(/It is with finance, in review/)).toBeVisible();
  await expect(route.getByText('yes by Inês Quadros')).toBeVisible();

  const end = { revision: revision + 1, key: ['P03'], on: yesterday };
  expect((await keeper.request.post('/api/setup/substitutes/end', { data: end })).status()).toBeLessThan(300);
});

test('an approver on a phone declines a line, approves the rest and takes it back', async ({ browser }) => {
  const tomas = await pageOf(browser, 'tomas.brandao');
  const number = await handedIn(tomas, 'Nets and a supper', [
    line('24.00', 'Leeside Nets', { costCentre: '430', fund: '10' }),
    line('9.50', 'Quay Supper', { costCentre: '430', fund: '10' }),
  ]);
  const phone = await pageOf(browser, 'siobhan.odowd');
  await phone.setViewportSize({ width: 390, height: 780 });
  await phone.goto('/approvals');
  const fits = async () =>
    expect(await phone.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await phone.getByRole('link', { name: new RegExp(number) }).click();
  await phone.getByRole('button', { name: 'Decline line 2…' }).click();
  await phone.getByLabel('Why line 2 is declined').fill('Supper was part of the lodging.');
  await phone.getByRole('button', { name: 'Decline the line' }).click();
  await expect(phone.getByText('Line 2: 9.50 EUR declined, left out')).toBeVisible();
  await fits();
  await phone.getByRole('button', { name: 'Approve' }).click();
  await expect(phone.getByText(/It is with finance, in review/)).toBeVisible();
  await phone.getByRole('link', { name: 'Back to your approvals' }).click();
  await phone.getByRole('button', { name: `Take back ${number}` }).click();
  await expect(phone.getByText(`${number} waits for you again`)).toBeVisible();
  await expect(phone.getByRole('link', { name: new RegExp(number) }).first()).toContainText('24.00');
  await fits();
});

test('an approver sends a claim back with a question at a line, where it is answered', async ({ browser }) => {
  const tomas = await pageOf(browser, 'tomas.brandao');
  const number = await handedIn(tomas, 'Ropes and a drum', [
    line('24.00', 'Leeside Ropes', { costCentre: '430', fund: '10' }),
    line('77.00', 'Quay Drums', { costCentre: '430', fund: '10' }),
  ]);
  const siobhan = await pageOf(browser, 'siobhan.odowd');
  await siobhan.goto(`/claims/${number}`);
  await siobhan.getByRole('button', { name: 'Return…' }).click();
  await siobhan.getByLabel('Why it goes back to the claimant').fill('One thing is not clear');
  await siobhan.getByLabel('About line 2').fill('What is the drum for?');
  await siobhan.keyboard.press('Enter');
  await expect(siobhan.getByText(`${number} is returned`)).toBeVisible();
  await tomas.goto(`/claims/${number}`);
  await tomas.getByLabel('Answer to: line 2, What is the drum for?').fill('To keep the nets dry');
  await tomas.keyboard.press('Enter');
  await expect(tomas.getByText('All is saved')).toBeVisible();
  const { claim } = await (await tomas.request.get(`/api/claims/${number}`)).json();
  const again = { revision: claim.revision, accepted: 'policy' };
  expect((await tomas.request.post(`/api/claims/${number}/resubmit`, { data: again })).status()).toBe(200);
  await siobhan.reload();
  await expect(siobhan.getByText('“To keep the nets dry”')).toBeVisible();
  await siobhan.getByRole('button', { name: 'With a word…' }).click();
  await siobhan.getByLabel('A word to go with it').fill('Good idea');
  await siobhan.keyboard.press('Enter');
  await expect(siobhan.getByText(/approved it; it went to review: Good idea/)).toBeVisible();
});

test('what is usual is approved together from the list, and taken back as one', async ({ browser }) => {
  const page = await pageOf(browser, 'siobhan.odowd');
  await page.goto('/approvals');
  const usual = page.getByRole('checkbox', { name: /^Choose C-102/ });
  await expect(usual).toHaveCount(2);
  await tabTo(page, page.locator('[data-row]').first());
  for (const number of ['C-1024', 'C-1025']) {
    const row = page.getByRole('link', { name: new RegExp(number) }).first();
    for (let i = 0; i < 30 && !(await row.evaluate((e) => e === document.activeElement)); i += 1)
      await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Space');
  }
  await page.keyboard.press('y');
  await expect(page.getByText('2 are approved')).toBeVisible();
  await expect(usual).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(usual).toHaveCount(2);
});

test('an administrator says who stands in for whom, and ends it', async ({ browser }) => {
  const leilani = await pageOf(browser, 'leilani.kahue');
  await leilani.goto('/setup');
  const form = leilani.getByRole('form', { name: 'A substitute' });
  await form.getByRole('button', { name: 'Set the substitute' }).click();
  await expect(form.getByRole('alert')).toHaveText(['Choose who is away.', 'Choose who decides for them.']);
  await form.getByLabel('Who is away').selectOption('Ren Isshiki');
  await form.getByLabel('Who decides for them').selectOption('Siobhán O’Dowd');
  // not today: others decide in other stories
  const [from, to] = [addDays(todayHere(), 1), addDays(todayHere(), 3)];
  await form.getByRole('textbox', { name: 'From', exact: true }).fill(from);
  await form.getByRole('textbox', { name: 'To', exact: true }).fill(to);
  await form.getByRole('button', { name: 'Set the substitute' }).click();
  const row = leilani.getByRole('listitem').filter({ hasText: 'Siobhán O’Dowd for Ren Isshiki' });
  await expect(row).toContainText(`${from} to ${to}`);
  await form.getByLabel('Who is away').selectOption('Ren Isshiki');
  await form.getByLabel('Who decides for them').selectOption('Odd Fjellheim');
  await form.getByRole('button', { name: 'Set the substitute' }).click();
  await expect(form.getByRole('alert')).toContainText('holds on some of these days already');
  await row.getByRole('button', { name: 'End it' }).click();
  await expect(row).toContainText(`${from} to ${from}`);
});
