import { expect, test } from '@playwright/test';
import { addDays } from '../../core/numbers/isoDate.ts';
import { todayHere } from '../../web/parts/today.ts';
import { viewOf } from '../fixtures/acts.ts';
import { journeyClaim } from '../fixtures/cleanClaims.ts';
import { clientOf } from './client.ts';
import { pageOf, tabTo } from './people.ts';

/** Dividing lines: what is left is seen, shares are saved, put on a whole claim, and taken from earlier ones. */

const days = [10, 9, 8].map((ago) => addDays(todayHere(), -ago));

test('a line is divided until nothing is left, its shares are kept, put on the whole claim, and taken on the next', async ({
  browser,
}) => {
  const [tomas, siobhan] = [await pageOf(browser, 'tomas.brandao'), await pageOf(browser, 'siobhan.odowd')];
  const makers = { claimant: clientOf(tomas), approver: clientOf(siobhan) };
  const first = await journeyClaim(makers, days, 'Sluices of the season');
  const second = await journeyClaim(makers, days.slice(0, 1), 'One sluice more');
  const maeve = await pageOf(browser, 'maeve.tarrant');
  await maeve.goto(`/desk/${first}`);
  const bench = maeve.getByRole('form', { name: 'split of line 1' });
  await expect(maeve.getByLabel('Settlement')).toBeVisible();
  await maeve.keyboard.press('s');
  await expect(bench.getByLabel('Value of share 1')).toBeFocused();

  // what no share has is said with its figures, and one key gives it to a share
  const [line] = (await viewOf(clientOf(maeve), first)).document.claim.lines;
  await bench.getByLabel('Value of share 2').fill('30');
  const left = bench.getByRole('row', { name: 'Left to divide' });
  await expect(left).toContainText((Number(line.amount) * 0.2).toFixed(2));
  await expect(bench.getByRole('alert')).toContainText('The split leaves 20 %');
  await expect(bench.getByRole('slider')).toHaveCount(0);
  await tabTo(maeve, bench.getByRole('button', { name: 'Share 2 takes the rest' }));
  await maeve.keyboard.press('Enter');
  await expect(left).toBeHidden();
  await expect(bench.getByLabel('Value of share 2')).toHaveValue('rest');
  await expect(bench.getByRole('slider')).toHaveCount(1);

  // weights say what they count
  await bench.getByLabel('weights').check();
  await bench.getByLabel('What the weights count').fill('days');
  await bench.getByLabel('Value of share 1').fill('12');
  await bench.getByLabel('Value of share 2').fill('7.5');
  await expect(bench.getByRole('columnheader', { name: 'days' })).toBeVisible();

  // kept under a name, in a dialog that does not send the bench
  await bench.getByLabel('Take shares from').selectOption({ label: 'Save these shares…' });
  await maeve.getByRole('dialog').getByLabel('Its name').fill('Field season');
  await maeve.keyboard.press('Enter');
  await expect(maeve.getByText('Saved as Field season')).toBeVisible();
  await expect(bench).toBeVisible();

  await bench.getByLabel('the 2 other lines like this one').check();
  await tabTo(maeve, bench.getByRole('button', { name: 'Save', exact: true }));
  await maeve.keyboard.press('Enter');
  await expect(maeve.getByText('Saved: split of 3 lines')).toBeVisible();
  const splits = async () =>
    (await viewOf(clientOf(maeve), first)).document.claim.lines.map((l: any) => [
      l.split?.unit,
      l.split?.shares.length,
    ]);
  expect(await splits()).toEqual([
    ['days', 2],
    ['days', 2],
    ['days', 2],
  ]);

  // the next claim of the same person offers them, from the claim before and under their name
  await maeve.goto(`/desk/${second}`);
  await expect(maeve.getByLabel('Settlement')).toBeVisible();
  await maeve.keyboard.press('s');
  const from = bench.getByLabel('Take shares from');
  await expect(from.locator('optgroup[label="Earlier claims"]')).toContainText(`${first} line 1`);
  await from.selectOption({ label: 'Field season' });
  await expect(bench.getByLabel('Value of share 1')).toHaveValue('12');
  await expect(bench.getByLabel('What the weights count')).toHaveValue('days');
  // a cut moved with the arrows makes whole percents
  await tabTo(maeve, bench.getByRole('slider', { name: 'Cut after share 1' }));
  await maeve.keyboard.press('ArrowLeft');
  await expect(bench.getByLabel('percent')).toBeChecked();
  await expect(bench.getByLabel('Value of share 1')).toHaveValue('61');
  await maeve.keyboard.press('Escape');

  await maeve.goto(`/desk/${first}`);
  await expect(maeve.getByText('split in 2').first()).toBeVisible();
});

test('a cut is dragged with the mouse, and a code found by its words', async ({ browser }) => {
  const [tomas, siobhan] = [await pageOf(browser, 'tomas.brandao'), await pageOf(browser, 'siobhan.odowd')];
  const makers = { claimant: clientOf(tomas), approver: clientOf(siobhan) };
  const number = await journeyClaim(makers, days.slice(0, 1), 'A sluice to drag');
  const maeve = await pageOf(browser, 'maeve.tarrant');
  await maeve.goto(`/desk/${number}`);
  await expect(maeve.getByLabel('Settlement')).toBeVisible();
  await maeve.keyboard.press('s');
  const bench = maeve.getByRole('form', { name: 'split of line 1' });
  const cut = bench.getByRole('slider');
  await expect(cut).toHaveAttribute('aria-valuenow', '50');
  const box = (await cut.boundingBox())!;
  const bar = (await cut.locator('..').boundingBox())!;
  await maeve.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await maeve.mouse.down();
  await maeve.mouse.move(bar.x + bar.width * 0.25, box.y + box.height / 2, { steps: 8 });
  await maeve.mouse.up();
  await expect(bench.getByLabel('Value of share 1')).toHaveValue('25');
  await expect(cut).toHaveAttribute('aria-valuenow', '25');

  // one field finds a code of any dimension, by its words
  await tabTo(maeve, bench.getByRole('combobox', { name: 'Any code of share 2' }));
  await maeve.keyboard.type('tide');
  await maeve.keyboard.press('Enter');
  await expect(bench.getByRole('combobox', { name: 'Project of share 2' })).toContainText('TIDE-04');
});
