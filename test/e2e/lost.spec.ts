import { expect, test, type BrowserContext, type Page } from '@playwright/test';
import { pdf } from '../fixtures/badReceipts.ts';
import { clientOf } from './client.ts';
import { pageOf } from './people.ts';

/** What is typed and pressed while the network, the session or another tab comes between: nothing is lost, nothing is twice. */

const LINE = { date: '2026-11-02', amount: { amount: '12.00', currency: 'EUR' }, category: 'meal', merchant: 'Quay' };
const CODING = { costCentre: '430', fund: '10' };
const SAVED = 'All is saved';

async function draft(page: Page, lines: object[] = [LINE], purpose = 'Lost and found'): Promise<string> {
  const tomas = clientOf(page);
  const { number } = (await tomas.post('/drafts', { purpose, coding: CODING })).body;
  if (lines.length > 0) await tomas.post(`/drafts/${number}/lines`, { revision: 1, lines });
  return number as string;
}
async function opened(page: Page, number: string): Promise<void> {
  await page.goto(`/claims/${number}`);
  await expect(page.getByLabel('What the claim is for')).toBeVisible();
}
const linesOf = async (page: Page, number: string) =>
  (await clientOf(page).get(`/claims/${number}`)).body.document.lines as { amount: string; merchant: string | null }[];
const stateOf = async (page: Page, number: string) =>
  (await clientOf(page).get(`/claims/${number}`)).body.claim.state as string;
const save = (page: Page) => expect(page.getByText(SAVED)).toBeVisible();
async function endSession(context: BrowserContext, page: Page): Promise<void> {
  await clientOf(page).send('DELETE', '/session');
  expect((await context.request.get('/api/claims/own')).status()).toBe(401);
}
async function signInAgain(page: Page): Promise<void> {
  await page.getByRole('alertdialog', { name: 'Session ended' }).getByLabel('Password').fill('saltmarsh');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alertdialog', { name: 'Session ended' })).toBeHidden();
}

test('what is typed when the session has ended is sent after signing in, and nothing is handed in before', async ({
  browser,
}) => {
  const page = await pageOf(browser, 'tomas.brandao');
  const number = await draft(page);
  await opened(page, number);
  await endSession(page.context(), page);
  await page.getByLabel('Amount of line 1').fill('20');
  await page.keyboard.press('Tab');
  await expect(page.getByText(/Your session has ended. What you typed is kept/)).toBeVisible();
  await expect(page.getByText(SAVED)).toBeHidden();
  await signInAgain(page);
  await save(page);
  expect((await linesOf(page, number))[0]!.amount).toBe('20.00');
});

test('handing in waits for what is on its way, and does not go past what could not be saved', async ({ browser }) => {
  const page = await pageOf(browser, 'tomas.brandao');
  const number = await draft(page);
  await opened(page, number);
  let release = (): void => undefined;
  const held = new Promise<void>((resolve) => (release = resolve));
  await page.route('**/api/drafts/*/lines/1', async (route) => {
    await held;
    await route.continue();
  });
  await page.getByLabel('Amount of line 1').fill('20');
  await page.getByRole('button', { name: /^Submit/ }).click();
  const dialog = page.getByRole('dialog', { name: 'Submit it?' });
  await dialog.getByRole('checkbox').check();
  for (const word of await dialog.getByPlaceholder('Say why in a few words').all()) {
    await word.fill('As agreed');
    await word.press('Tab');
  }
  await dialog.getByRole('button', { name: 'Submit', exact: true }).click();
  expect(await stateOf(page, number)).toBe('draft');
  release();
  await expect.poll(() => stateOf(page, number)).not.toBe('draft');
  expect((await linesOf(page, number))[0]!.amount).toBe('20.00');

  // as long as it is with approvers it is taken back by the message's Undo, with everything on it
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => stateOf(page, number)).toBe('draft');
  await page.getByLabel('Amount of line 1').fill('many');
  await page.getByRole('button', { name: /^Submit/ }).click();
  await page.getByRole('dialog').getByRole('checkbox').check();
  await page.getByRole('dialog').getByRole('button', { name: 'Submit', exact: true }).click();
  await expect(page.getByText(/Amount of line 1 is typed and not saved/)).toBeVisible();
  expect(await stateOf(page, number)).toBe('draft');
});

test('a line is added once: pressed twice, without an answer, without a network', async ({ browser }) => {
  const page = await pageOf(browser, 'tomas.brandao');
  const number = await draft(page, []);
  await opened(page, number);
  let lost = 1;
  await page.route('**/api/drafts/*/lines', async (route) => {
    if (route.request().method() !== 'POST' || lost === 0) return route.continue();
    lost -= 1;
    await route.fetch();
    await route.abort();
  });
  const typeLine = async (merchant: string) => {
    await page.getByLabel('Date of a new line').fill('2026-11-02');
    await page.getByLabel('Merchant of a new line').fill(merchant);
    await page.getByRole('combobox', { name: 'Category of a new line' }).press('m');
    await page.keyboard.type('eal');
    await page.getByRole('option', { name: /^meals?\b/i, selected: true }).waitFor();
    await page.keyboard.press('Enter');
    await page.getByLabel('Amount of a new line').fill('12');
  };
  await typeLine('Answer lost');
  const add = page.getByRole('button', { name: 'Add', exact: true });
  await add.dblclick();
  await expect(page.getByLabel('Merchant of a new line')).toHaveValue('');
  await expect(page.getByLabel('Merchant of line 1')).toHaveValue('Answer lost');
  await save(page);
  await page.context().setOffline(true);
  await page.getByLabel('Merchant of a new line').fill('No network');
  await page.getByLabel('Amount of a new line').fill('13');
  await add.click();
  await expect(page.getByText(/The server does not answer. What you typed/)).toBeVisible();
  await page.context().setOffline(false);
  await expect(page.getByLabel('Merchant of line 2')).toHaveValue('No network');
  await save(page);
  expect((await linesOf(page, number)).map((l) => l.merchant)).toEqual(['Answer lost', 'No network']);
});

test('what is typed is there after a reload, and gone from the device after signing out', async ({ browser }) => {
  const page = await pageOf(browser, 'tomas.brandao');
  const number = await draft(page);
  await opened(page, number);
  page.on('dialog', (dialog) => void dialog.accept());
  await page.getByLabel('Merchant of a new line').fill('Half typed');
  await page.route('**/api/drafts/**', (route) => route.abort());
  await page.getByLabel('Merchant of line 1').fill('Not sent yet');
  await page.keyboard.press('Tab');
  await expect(page.getByText(/The server does not answer. What you typed/)).toBeVisible({ timeout: 30_000 });
  await page.unroute('**/api/drafts/**');
  await page.reload();
  await expect(page.getByLabel('Merchant of a new line')).toHaveValue('Half typed');
  await expect(page.getByLabel('Merchant of line 1')).toHaveValue('Not sent yet');
  await expect.poll(async () => (await linesOf(page, number))[0]!.merchant).toBe('Not sent yet');
  const keptHere = () => page.evaluate(() => Object.keys(localStorage).filter((key) => key.startsWith('ebbet kept')));
  expect(await keptHere()).not.toEqual([]);
  await page.getByRole('button', { name: 'Sign out' }).click();
  const asked = page.getByRole('dialog', { name: 'Sign out?' });
  await expect(asked).toContainText('A new line');
  await asked.getByRole('button', { name: 'Sign out, and throw it away' }).click();
  await expect(page.getByLabel('E-mail')).toBeVisible();
  expect(await keptHere()).toEqual([]);
});

test('a receipt half put right is there after a reload, and one that contradicts its line is told before it is handed in', async ({
  browser,
}) => {
  const page = await pageOf(browser, 'tomas.brandao');
  page.on('dialog', (dialog) => void dialog.accept());
  const bill = await pdf(1, [
    ['Gather Cafe', ''],
    ['Date: 2026-11-02', ''],
    ['Total EUR', '84.00'],
  ]);
  await page.goto('/gather/receipts');
  await page
    .getByLabel('Add files', { exact: true })
    .and(page.locator('input'))
    .setInputFiles([{ name: 'half right.pdf', mimeType: 'application/pdf', buffer: Buffer.from(bill) }]);
  await page.getByRole('link', { name: /half right/ }).click();
  const detail = page.getByRole('complementary', { name: 'Receipt' });
  await expect(detail.getByLabel(/^Amount/)).toHaveValue('84.00');
  await detail.getByLabel(/^Merchant/).fill('Gather Cafe, Cork');
  await page.reload();
  await expect(detail.getByLabel(/^Merchant/)).toHaveValue('Gather Cafe, Cork');
  await expect(detail.getByLabel(/^Amount/)).toHaveValue('84.00');
  await detail.getByRole('button', { name: 'Confirm' }).click();
  await expect(page.getByText('Confirmed', { exact: true })).toBeVisible();
  const receipt = page.url().split('/').at(-1)!;
  const take = { claim: null, purpose: 'Contradicted', take: [{ receipt, category: 'meal' }] };
  const { number } = (await clientOf(page).post('/drafts/lines', take)).body;
  await opened(page, number);
  const says = /amount: the line says 60.00, the receipt 84.00/;
  await expect(page.getByText(says)).toHaveCount(0);
  await page.getByLabel('Amount of line 1').fill('60');
  await page.keyboard.press('Enter');
  await expect(page.getByText(says)).toBeVisible();
  await page.getByRole('button', { name: /^Submit/ }).click();
  await expect(page.getByRole('heading', { name: /Not as the evidence says/ })).toBeVisible();
});

test('a page that could not be loaded says why, and is there once the network is', async ({ browser }) => {
  const page = await pageOf(browser, 'tomas.brandao');
  await page.goto('/claims');
  await expect(page.getByRole('heading', { name: /claims/i }).first()).toBeVisible();
  await page.context().setOffline(true);
  await page.getByRole('link', { name: 'Gather' }).click();
  await expect(page.getByText('This page could not be loaded, since the server does not answer.')).toBeVisible();
  await page.context().setOffline(false);
  const again = page.getByRole('button', { name: 'Try again' });
  if (await again.isVisible()) await again.click();
  await expect(page.getByRole('link', { name: 'Receipts' })).toBeVisible();
});

test('tabs of one browser hear of each other, and what is typed for a line that is gone becomes a new one', async ({
  browser,
}) => {
  const page = await pageOf(browser, 'tomas.brandao');
  const number = await draft(page, [LINE, { ...LINE, merchant: 'Pier', amount: { amount: '7.00', currency: 'EUR' } }]);
  await opened(page, number);
  const other = await page.context().newPage();
  await opened(other, number);
  // changed there while it is typed here: it is said, and Enter is one's own word
  await page.getByLabel('Merchant of line 1').fill('Mine');
  await other.getByLabel('Merchant of line 1').fill('Theirs');
  await other.keyboard.press('Tab');
  await save(other);
  await expect(page.getByText(SAVED)).toBeHidden();
  await page.getByLabel('Merchant of line 1').press('Enter');
  // it was heard of before, or the server says so
  await expect(
    page.getByText(/It said “Quay” when you typed this and says “Theirs” now|Somebody else changed this meanwhile/),
  ).toBeVisible();
  await page.getByLabel('Merchant of line 1').press('Enter');
  await save(page);
  await expect(other.getByLabel('Merchant of line 1')).toHaveValue('Mine');
  // taken off there while it is typed here
  await page.getByLabel('Amount of line 2').fill('8.50');
  await other.getByRole('button', { name: 'More of line 2' }).click();
  await other.getByRole('button', { name: 'Take the line off' }).click();
  await save(other);
  await expect(page.getByLabel('Amount of line 2')).toBeHidden();
  await page.getByRole('button', { name: 'Add it as a new line' }).click();
  await expect(page.getByLabel('Amount of line 3')).toHaveValue('8.50 EUR');
  await save(page);
  expect((await linesOf(page, number)).map((l) => [l.merchant, l.amount])).toEqual([
    ['Mine', '12.00'],
    ['Pier', '8.50'],
  ]);
});

test('an open Sheet hears of an answer, and does what was pressed where nothing it depends on changed', async ({
  browser,
}) => {
  const maeve = await pageOf(browser, 'maeve.tarrant');
  // another tab of hers; whoever acts, the open one has not
  const elsewhere = clientOf(await pageOf(browser, 'maeve.tarrant'));
  await maeve.goto('/desk/C-1011');
  await expect(maeve.getByRole('grid').or(maeve.getByRole('table')).first()).toBeVisible();
  const claim = async () => (await elsewhere.get('/claims/C-1011')).body;
  const { ties, claim: seen } = await claim();
  const loose = ties.filter((t: any) => t.shown === 'off' || t.shown === 'open');
  expect(loose.length).toBeGreaterThan(1);
  const [first] = loose;
  const fact = { line: first.line, kind: first.kind, about: first.about };
  const mark = first.shown === 'open' ? { mark: 'seen' } : { mark: 'waived', reason: 'Agreed by mail' };
  const marked = await elsewhere.post('/claims/C-1011/marks', { revision: seen.revision, ...fact, ...mark });
  expect(marked.body.code).toBeUndefined();
  // it is shown without a reload, so the next act is not refused
  const shown = first.shown === 'open' ? 'seen' : 'waived';
  await expect(maeve.getByRole('button', { name: `line ${first.line} ${first.kind}: ${shown}` })).toBeVisible();
  await maeve.keyboard.press('h');
  await maeve.getByLabel('Why it has to wait (for finance)').fill('Wait for the bank');
  // somebody marks another comparison in the same moment: the hold does not depend on it
  const now = await claim();
  const second = now.ties.find((t: any) => (t.shown === 'off' || t.shown === 'open') && t.about !== first.about)!;
  await maeve.route(
    '**/api/claims/C-1011/hold',
    async (route) => {
      const more = second.shown === 'open' ? { mark: 'seen' } : { mark: 'waived', reason: 'Agreed too' };
      const at = { line: second.line, kind: second.kind, about: second.about };
      await elsewhere.post('/claims/C-1011/marks', { revision: (await claim()).claim.revision, ...at, ...more });
      await route.continue();
    },
    { times: 1 },
  );
  await maeve.keyboard.press('Enter');
  await expect.poll(async () => (await claim()).claim.holdReason).toBe('Wait for the bank');
  const { revision } = (await claim()).claim;
  await elsewhere.post('/claims/C-1011/release', { revision });
});
