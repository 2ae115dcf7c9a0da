import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { goToRow, pressUntil, signIn, signOut, tabTo, pageOf } from './people.ts';

/** The queue's row of a claim, reached with the arrow keys and opened with Enter. */
async function openFromDesk(page: Page, number: string): Promise<void> {
  await expect(page.getByRole('table', { name: 'Claims' })).toBeVisible();
  await pressUntil(page, 'ArrowDown', page.locator(`a:focus[href="/desk/${number}"]`));
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: new RegExp(number) })).toBeVisible();
}

/** From cleared to a journal in the ledger, by a controller with the keyboard. */
async function postFromLedger(page: Page, number: string): Promise<void> {
  await signIn(page, 'odd.fjellheim');
  await tabTo(page, page.getByRole('link', { name: 'Ledger', exact: true }));
  await page.keyboard.press('Enter');
  await tabTo(page, page.getByRole('link', { name: new RegExp(number) }).first());
  await page.keyboard.press('Enter');
  await expect(page.getByRole('group', { name: 'Journal rows' })).toBeVisible();
  await page.keyboard.press('p');
  await expect(page.getByLabel('Posting date')).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: /posting of/ })).toBeVisible();
}

test('a claim from the desk to the ledger and back, with the keyboard alone', async ({ page, browser }) => {
  await signIn(page, 'maeve.tarrant');
  await openFromDesk(page, 'C-1001');
  const settlement = page.getByLabel('Settlement');
  await expect(settlement).toHaveText(
    /730\.31 claimed − 0\.00 company-paid − 0\.00 private − 0\.00 advances = 730\.31\s*EUR to pay/,
  );

  // the first cell that is not tied has the focus: the receipt is over 9.00 more than the line
  const evidence = page.getByRole('complementary', { name: 'Evidence' });
  await expect(evidence.getByRole('heading', { name: 'Line 2, receipt' })).toBeVisible();
  await expect(evidence.getByRole('row', { name: /amount/ })).toContainText('−9.00');
  await expect(evidence.getByRole('img', { name: 'Receipt of line 2' })).toBeVisible();
  await page.keyboard.press('w');
  await expect(page.getByLabel('Why this difference is accepted')).toBeFocused();
  await page.keyboard.type('Only the food was claimed');
  await page.keyboard.press('Enter');
  await expect(evidence.getByText('Waived by Maeve Tarrant: Only the food was claimed')).toBeVisible();

  await page.keyboard.press('n');
  await expect(evidence.getByRole('heading', { name: 'Line 6, receipt' })).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText(/1 comparison is not tied/)).toBeVisible();
  await page.keyboard.press('Space');
  await expect(evidence.getByText('Seen by Maeve Tarrant')).toBeVisible();

  // the tied lines are folded; the arrow reaches the fold and Enter opens it
  await pressUntil(page, 'ArrowDown', page.locator('#folded:focus'));
  await page.keyboard.press('Enter');
  await pressUntil(page, 'ArrowUp', evidence.getByRole('heading', { name: 'Line 5, receipt' }));
  await page.keyboard.press('s');
  const bench = page.getByRole('form', { name: 'split of line 5' });
  await expect(bench.getByLabel('Value of share 1')).toBeFocused();
  await page.keyboard.type('60');
  await expect(bench.getByRole('row').nth(1)).toContainText('60.01');
  await expect(bench.getByRole('row').nth(2)).toContainText('40.00');
  await tabTo(page, bench.getByLabel('Cost centre of share 2'));
  await page.keyboard.type('430');
  await page.keyboard.press('Enter');
  await expect(page.getByText('as typed, not saved')).toBeVisible();
  await tabTo(page, bench.getByLabel('Value of share 2'));
  await page.keyboard.press('Enter');
  await expect(page.getByText('Saved: split of line 5')).toBeVisible();
  await expect(bench).toBeHidden();

  await page.keyboard.press('j');
  const journal = page.getByRole('group', { name: 'Journal rows' });
  await expect(journal.getByRole('row', { name: /430 · 10 · REED-11/ })).toContainText('32.52');
  // cost centre 430 was not on the approved version: its owner is asked first
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText(/Ren Isshiki has to agree first/)).toBeVisible();
  const owner = await pageOf(browser, 'ren.isshiki');
  await owner.goto('/approvals');
  const asked = owner.getByRole('link', { name: /C-1001.*a code of yours/ });
  await goToRow(owner, asked);
  await owner.keyboard.press('Enter');
  await tabTo(owner, owner.getByRole('button', { name: 'Agree to the codes' }));
  await owner.keyboard.press('Enter');
  await expect(owner.getByText('C-1001 has your yes')).toBeVisible();
  await owner.context().close();
  await page.reload();
  await evidence.getByRole('heading', { name: /Line \d/ }).waitFor();
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('C-1001 is cleared')).toBeVisible();
  await signOut(page);

  await postFromLedger(page, 'C-1001');
  const row = page.getByRole('row', { name: /430 · 10 · REED-11/ });
  await expect(row).toContainText('32.52');
  await tabTo(page, row.getByRole('button'));
  await page.keyboard.press('Enter');
  await expect(page.getByText('2 of 2: gross 40.00, tax back 7.48, cost 32.52 EUR')).toBeVisible();
  await expect(page.getByRole('img', { name: 'Receipt' })).toBeVisible();

  await tabTo(page, page.getByRole('button', { name: 'Reverse…' }));
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Why it is reversed')).toBeFocused();
  await page.keyboard.type('Wrong cost centre');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: /reversal of/ })).toBeVisible();
  await expect(page.getByText(/reverses IE-\d+: Wrong cost centre/)).toBeVisible();

  await tabTo(page, page.getByRole('link', { name: 'Back to the Ledger' }));
  await page.keyboard.press('Enter');
  const link = page.getByRole('link', { name: 'Download as CSV' });
  await tabTo(page, link);
  const [download] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('Enter')]);
  expect(readFileSync(await download.path(), 'utf8')).toContain('Sample jars and waders');
});

test('the same in yen: no decimals anywhere, two tax rates on one receipt', async ({ page }) => {
  await signIn(page, 'maeve.tarrant');
  await openFromDesk(page, 'C-1002');
  await expect(page.getByLabel('Settlement')).toHaveText(
    /108\s000 claimed − 18\s022 company-paid − 0 private − 0 advances = 89\s978\s*JPY to pay/,
  );
  await page.keyboard.press('w');
  await expect(page.getByLabel('Why this difference is accepted')).toBeFocused();
  await page.keyboard.type('The difference was tea, not claimed');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/Waived by Maeve Tarrant/)).toBeVisible();
  await page.keyboard.press('s');
  const bench = page.getByRole('form', { name: 'split of line 3' });
  await expect(bench.getByLabel('Value of share 1')).toBeFocused();
  await page.keyboard.type('33,3');
  await expect(bench.getByRole('row').nth(1)).toContainText(/1\s092/);
  await expect(bench.getByRole('row').nth(2)).toContainText(/2\s186/);
  await page.keyboard.press('Enter');
  await expect(page.getByText('Saved: split of line 3')).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('C-1002 is cleared')).toBeVisible();
  await signOut(page);
  await postFromLedger(page, 'C-1002');
  await expect(page.getByRole('heading', { name: /JP-0/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /Payable to claimants/ })).toContainText(/89\s978/);
  await expect(page.getByRole('row', { name: /Card clearing 8803/ })).toContainText(/18\s022/);
  expect(await page.getByRole('table').innerText()).not.toMatch(/JPY[^\n]*\d\.\d/);
});
