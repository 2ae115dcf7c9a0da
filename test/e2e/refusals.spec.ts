import { expect, test } from '@playwright/test';
import { chooseCode, pageOf, tabTo } from './people.ts';

test('one’s own claim can be read and nothing more', async ({ browser }) => {
  const page = await pageOf(browser, 'maeve.tarrant');
  await page.goto('/desk/C-1007');
  // A reviewer's own claim is shown as to any claimant: nothing of what finance says among itself.
  await expect(page).toHaveURL(/\/claims\/C-1007$/);
  await expect(page.getByText('It is with finance, in review')).toBeVisible();
  await expect(page.getByRole('button', { name: /Clear/ })).toHaveCount(0);
  await page.keyboard.press('Control+Enter');
  await page.keyboard.press('s');
  await expect(page.getByRole('form')).toHaveCount(0);
  await expect(page.getByRole('button', { name: /Submit|Approve|Waive|Post/ })).toHaveCount(0);
});

test('two reviewers on one claim: the second is told what changed and keeps what was typed', async ({ browser }) => {
  const [maeve, ines] = [await pageOf(browser, 'maeve.tarrant'), await pageOf(browser, 'ines.quadros')];
  await maeve.goto('/desk/C-1006');
  await ines.goto('/desk/C-1006');
  await expect(maeve.getByRole('heading', { name: 'Line 1, budget' })).toBeVisible();
  await maeve.keyboard.press('s');
  await maeve.getByLabel('Value of share 1').fill('12.5');

  await expect(ines.getByRole('heading', { name: 'Line 1, budget' })).toBeVisible();
  await ines.keyboard.press('c');
  await chooseCode(ines, 'Cost centre of line 1', '440');
  await ines.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(ines.getByText('Saved: coding of line 1')).toBeVisible();

  await maeve.getByLabel('Value of share 1').press('Enter');
  const notice = maeve.getByRole('alert').filter({ hasText: 'The claim was changed while you worked' });
  await expect(notice).toContainText('Inês Quadros: corrected line 1: coding');
  await expect(maeve.getByLabel('Value of share 1')).toHaveValue('12.5');
  await notice.getByRole('button', { name: 'Save mine' }).click();
  await expect(maeve.getByText('Saved: split of line 1')).toBeVisible();
  await maeve.getByRole('button', { name: 'History' }).click();
  await expect(maeve.getByRole('listitem').first()).toContainText('corrected line 1: split');
});

test('a split that does not hold shows what is left and forbids clearing', async ({ browser }) => {
  const page = await pageOf(browser, 'maeve.tarrant');
  await page.goto('/desk/C-1005');
  await expect(page.getByRole('heading', { name: 'Line 1, receipt' })).toBeVisible();
  await page.keyboard.press('s');
  await page.getByLabel('Value of share 2').fill('45');
  await page.getByLabel('Value of share 1').fill('50');
  await expect(page.getByRole('alert')).toContainText('The split leaves 5 %. Change the shares until nothing is left.');
  await expect(page.getByLabel('Posting')).toContainText('cannot be made: line 1, The split leaves 5 %.');
  await page.getByRole('button', { name: /^Clear/ }).click();
  await expect(page.getByText('The split of line 1 is typed and not saved. Save it or close it first.')).toBeVisible();
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Saved: split of line 1')).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('status')).toContainText('The claim cannot go on: line 1: The split leaves 5 %.');
  await page.keyboard.press('u');
  await expect(page.getByText('Undone: split of line 1')).toBeVisible();
  await expect(page.getByLabel('Posting')).toContainText('balanced');
});

test('a closed period refuses and names the open ones', async ({ browser }) => {
  const page = await pageOf(browser, 'odd.fjellheim');
  await page.goto('/desk/C-1016');
  await page.getByRole('button', { name: 'Post…' }).click();
  await page.getByLabel('Posting date').fill('2020-01-15');
  const against = /Not on 2020-01-15: The period of 2020-01-15 is not open\. Open: \d{4}-\d{2}/;
  await expect(page.getByRole('status').filter({ hasText: against })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Post to the ledger' })).toBeDisabled();
  await expect(page.getByLabel('Posting date')).toHaveValue('2020-01-15');
});

test('an ended session asks for the password in place, and the work goes on', async ({ browser }) => {
  const page = await pageOf(browser, 'maeve.tarrant');
  await page.goto('/desk/C-1004');
  await expect(page.getByRole('heading', { name: 'Line 1, rate' })).toBeVisible();
  await page.keyboard.press('s');
  await page.getByLabel('Value of share 1').fill('70');
  expect((await page.context().request.delete('/api/session')).status()).toBe(204);
  await page.getByLabel('Value of share 1').press('Enter');
  const ended = page.getByRole('alertdialog', { name: 'Session ended' });
  await ended.getByLabel('E-mail').fill('maeve.tarrant@saltmarsh.example');
  await ended.getByLabel('Password').fill('saltmarsh');
  await ended.getByLabel('Password').press('Enter');
  await expect(ended).toBeHidden();
  await expect(page.getByLabel('Value of share 1')).toHaveValue('70');
  await page.getByLabel('Value of share 1').press('Enter');
  await expect(page.getByText('Saved: split of line 1')).toBeVisible();
});

test('keys act on the claim, not on what is typed, and can be switched off', async ({ browser }) => {
  const page = await pageOf(browser, 'maeve.tarrant');
  await page.goto('/desk');
  await page.getByLabel('Find claims').fill('snth');
  await expect(page.getByText('No claim in review fits “snth”')).toBeVisible();
  await page.getByLabel('Find claims').fill('');
  await expect(page.getByRole('link', { name: /C-1006/ })).toBeVisible();
  await page.getByRole('link', { name: /C-1009/ }).click();
  await expect(page).toHaveURL(/C-1009/);
  await expect(page.getByRole('heading', { name: /Line 1/ })).toBeVisible();
  await page.keyboard.press('?');
  await page.getByLabel('Single letters act outside of fields').uncheck();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('s');
  await expect(page.getByRole('form')).toHaveCount(0);
  await page.keyboard.press('?');
  await page.getByLabel('Single letters act outside of fields').check();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('h');
  await expect(page.getByLabel('Why it has to wait')).toBeFocused();
  await page.keyboard.type('hn.,');
  await expect(page.getByLabel('Why it has to wait')).toHaveValue('hn.,');
  await page.getByRole('button', { name: 'Cancel' }).click();
  await page.keyboard.press('s');
  await page.getByLabel('Value of share 1').press('Escape');
  await expect(page.getByRole('form')).toHaveCount(0);
  await page.keyboard.press('.');
  await expect(page.getByRole('heading', { name: /C-1009/ })).toHaveCount(0);
  await expect(page.getByRole('heading', { name: /Line \d/ })).toBeVisible();
  await page.keyboard.press(',');
  await expect(page).toHaveURL(/C-1009/);
});

test('a claimant sees where the claim is, what was changed and why it came back', async ({ browser }) => {
  const page = await pageOf(browser, 'tomas.brandao');
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Your claims' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Desk' })).toHaveCount(0);
  await page.goto('/desk');
  await expect(page).toHaveURL(/\/claims$/);
  const reviewer = await pageOf(browser, 'ines.quadros');
  const { claim } = await (await reviewer.context().request.get('/api/claims/C-1012')).json();
  const set = { split: { by: 'equal', shares: [{ coding: {} }, { coding: { costCentre: '430' } }] } };
  const saved = await reviewer
    .context()
    .request.put('/api/claims/C-1012/lines/1', { data: { revision: claim.revision, set } });
  expect(saved.ok()).toBe(true);
  await page.goto('/claims/C-1012');
  await expect(page.getByText('Finance changed split')).toBeVisible();
  await expect(page.getByText(/Inês Quadros corrected line 1: split/)).toBeVisible();
  await tabTo(page, page.getByRole('button', { name: 'Receipt' }).first());
  await page.keyboard.press('Enter');
  await expect(page.getByRole('img', { name: 'Receipt of line 1' })).toBeVisible();
  await page.goto('/claims/C-1002');
  await expect(page.getByText('There is no claim here, or it is not yours to see.')).toBeVisible();
});
