import { expect, test, type Locator, type Page } from '@playwright/test';
import { drawSlip } from '../../demo/drawReceipt.ts';
import { badReceipts, pdf } from '../fixtures/badReceipts.ts';
import { makeInvoice } from '../fixtures/eInvoice.ts';
import { added, drop, dropLarge, paste, zoneOf, type TestFile } from './files.ts';
import { pageOf } from './people.ts';

/** The list's row of a receipt, found by a text of it, once it has been read. */
const rowOf = (page: Page, text: string | RegExp): Locator =>
  page
    .getByRole('listitem')
    .filter({ has: page.getByRole('checkbox') })
    .filter({ hasText: text });

test('files are dropped, picked and pasted, read, confirmed and put on a claim', async ({ browser }) => {
  const page = await pageOf(browser, 'wanjiru.mbaya');
  await page.goto('/gather/receipts');
  await zoneOf(page).waitFor();
  const bill = await pdf(1, [
    ['Mangrove House Rooms', ''],
    ['Date: 2026-03-02', ''],
    ['Room', '80.00'],
    ['Breakfast', '9.50'],
    ['Total EUR', '89.50'],
  ]);
  const good: TestFile[] = [
    { name: 'bill.pdf', type: 'application/pdf', bytes: bill },
    { name: 'slip.jpg', type: 'image/jpeg', bytes: await drawSlip('The Salted Samphire', '2026-03-04', '27.40') },
  ];
  await drop(page, zoneOf(page), [...good, { name: 'empty.png', type: 'image/png', bytes: new Uint8Array() }]);
  await expect(added(page, 'empty.png').getByRole('alert')).toContainText('empty');
  await page
    .getByLabel('Add files', { exact: true })
    .and(page.locator('input'))
    .setInputFiles([{ name: 'invoice.xml', mimeType: 'text/xml', buffer: await makeInvoice('UBL') }]);
  await paste(page, [
    { name: 'pasted.png', type: 'image/png', bytes: await drawSlip('Reedbed Cafe', '2026-03-05', '12.60') },
  ]);

  // each is read in the background and appears with what it shows
  await expect(rowOf(page, 'bill.pdf')).toContainText('89.50');
  await expect(rowOf(page, 'slip.jpg')).toContainText('27.40', { timeout: 60_000 });
  await expect(rowOf(page, 'pasted.png')).toContainText('12.60', { timeout: 60_000 });
  await expect(rowOf(page, 'invoice.xml')).toContainText(/read with certainty/);

  // the viewer marks where the figure was read, turns and zooms
  await rowOf(page, 'bill.pdf').getByRole('link').click();
  const detail = page.getByRole('complementary', { name: 'Receipt' });
  await expect(detail.getByLabel(/^Amount/)).toHaveValue('89.50');
  await detail.getByLabel(/^Amount/).focus();
  await expect(detail.locator('.spot-focus')).toBeVisible();
  await detail.getByRole('button', { name: 'Turn' }).click();
  await detail.getByRole('button', { name: 'Larger' }).click();

  // a wrong amount is refused at its field and nothing typed is lost
  for (const typed of ['1e9', '１２３', 'abc']) {
    await detail.getByLabel(/^Amount/).fill(typed);
    await expect(detail.getByLabel(/^Amount/)).toHaveAttribute('aria-invalid', 'true');
  }
  await detail.getByLabel(/^Amount/).fill('89,50');
  await detail.getByRole('button', { name: 'Confirm' }).click();
  await expect(page.getByText('Confirmed', { exact: true })).toBeVisible();
  await expect(rowOf(page, 'bill.pdf')).toContainText('confirmed');

  await rowOf(page, 'bill.pdf').getByRole('checkbox').check();
  await page.getByRole('button', { name: 'Put on a claim…' }).click();
  const take = page.getByRole('form', { name: 'Put on a claim' });
  await take.getByRole('combobox', { name: 'Claim', exact: true }).selectOption('');
  await take.getByRole('button', { name: /Put 1 on/ }).click();
  await expect(take.getByRole('alert')).toContainText('Choose a category');
  await take.getByLabel(/^Category of/).selectOption('lodging');
  await take.getByLabel('What the claim is for').fill('Mangrove count');
  await take.getByRole('button', { name: /Put 1 on a new claim/ }).click();
  await expect(page.getByLabel('What the claim is for')).toHaveValue('Mangrove count');

  // the line is broken into items; half done they are kept, and what is left stays in sight until it is nothing
  await page.getByRole('button', { name: 'More of line 1' }).click();
  await page.getByRole('button', { name: 'Break into items' }).click();
  const items = page.getByRole('form', { name: 'Items of line 1' });
  await items.getByLabel('Amount of item 1').fill('80.00');
  await expect(items.getByRole('status')).toContainText('9.50');
  await items.getByRole('button', { name: 'Save' }).click();
  await expect(
    page.getByRole('table', { name: 'Lines' }).getByText('The items leave 9.50 EUR of the line'),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Items', exact: true }).click();
  await items.getByRole('button', { name: 'Add an item' }).click();
  await expect(items.getByLabel('Amount of item 2')).toHaveValue('9.50');
  await items.getByLabel('Category of item 2').selectOption('meal');
  await expect(items.getByRole('status')).toContainText('0.00');
  await items.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('button', { name: 'Items', exact: true })).toBeVisible();
  await page.context().close();
});

test('a file that cannot be a receipt says why at its name, and the others go on', async ({ browser }) => {
  const page = await pageOf(browser, 'siobhan.odowd');
  await page.goto('/gather/receipts');
  await zoneOf(page).waitFor();
  const bad = await Promise.all(
    badReceipts.map(async ([, name, bytes, reason], i) => ({
      name: `${i}-${name}`,
      type: '',
      bytes: await bytes(),
      reason,
    })),
  );
  const fine = {
    name: 'fine.pdf',
    type: 'application/pdf',
    bytes: await pdf(1, [
      ['Reedbed Cafe', ''],
      ['Tea and cake', '4.00'],
      ['Total EUR', '4.00'],
    ]),
  };
  await drop(page, zoneOf(page), [...bad, fine]);
  for (const { name, reason } of bad)
    await expect(added(page, name).getByRole('alert')).toContainText(reason, { timeout: 60_000 });
  await expect(added(page, 'fine.pdf').getByRole('button', { name: 'Added' })).toBeVisible();
  await dropLarge(zoneOf(page), 'huge.jpg', 40 * 1024 * 1024);
  await expect(added(page, 'huge.jpg').getByRole('alert')).toContainText('larger than 15 MB');
  await expect(rowOf(page, 'fine.pdf')).toContainText('4.00');
  await expect(page.getByRole('list', { name: 'Not on a claim yet' }).getByRole('listitem')).toHaveCount(1);
  await page.context().close();
});

test('receipts are found, put together, taken apart, divided, taken away and brought back', async ({ browser }) => {
  const page = await pageOf(browser, 'wanjiru.mbaya');
  await page.goto('/gather/receipts');
  await zoneOf(page).waitFor();
  const slip = async (name: string, total: string) => ({
    name,
    type: 'application/pdf',
    bytes: await pdf(1, [
      ['Bannow Ferry Ltd', ''],
      ['Date: 2026-03-09', ''],
      ['Total EUR', total],
    ]),
  });
  const two = { name: 'two.pdf', type: 'application/pdf', bytes: await pdf(2, [['Two slips Ltd', '7.00']]) };
  await drop(page, zoneOf(page), [await slip('front.pdf', '31.00'), await slip('back.pdf', '32.00'), two]);
  await expect(rowOf(page, 'front.pdf')).toContainText('31.00');
  await expect(rowOf(page, 'back.pdf')).toContainText('32.00');

  await page.getByLabel('Find receipts').fill('bannow 32');
  await expect(rowOf(page, 'front.pdf')).toHaveCount(0);
  await page.getByLabel('Find receipts').fill('bannow');
  await rowOf(page, 'front.pdf').getByRole('checkbox').check();
  await rowOf(page, 'back.pdf').getByRole('checkbox').check();
  // what is chosen stays chosen while one of them is looked at
  await rowOf(page, 'front.pdf').getByRole('link').click();
  await expect(page.getByText('2 receipts chosen')).toBeVisible();
  await page.getByRole('button', { name: 'Put together as one' }).click();
  const made = rowOf(page, /(front|back)\.pdf and 1 more/);
  await made.getByRole('link').click();
  const detail = page.getByRole('complementary', { name: 'Receipt' });
  await expect(detail.getByText('1 of 2')).toBeVisible();
  await detail.getByRole('button', { name: 'Take apart' }).click();
  await expect(rowOf(page, 'back.pdf')).toHaveCount(1);
  await expect(rowOf(page, 'front.pdf')).toHaveCount(1);

  await page.getByLabel('Find receipts').fill('two');
  await rowOf(page, 'two.pdf').getByRole('link').click();
  await detail.getByRole('button', { name: 'Divide…' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('button', { name: /^(Divide|Make)/ })).toBeDisabled();
  await dialog.getByLabel('Page 2 begins one').check();
  await dialog.getByRole('button', { name: 'Make 2 receipts' }).click();
  await expect(rowOf(page, 'two.pdf, page 1')).toHaveCount(1);
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect(rowOf(page, 'two.pdf, page 1')).toHaveCount(0);

  await page.getByLabel('Find receipts').fill('bannow');
  await rowOf(page, 'back.pdf').getByRole('checkbox').check();
  await page.getByRole('button', { name: 'Take 1 away' }).click();
  await expect(rowOf(page, 'back.pdf')).toHaveCount(0);
  await page.getByRole('button', { name: 'Show what was taken away' }).click();
  const gone = page
    .getByRole('list', { name: 'Taken away' })
    .getByRole('listitem')
    .filter({ hasText: 'back.pdf' })
    .first();
  await gone.getByRole('button', { name: 'Bring back' }).click();
  await expect(rowOf(page, 'back.pdf')).toHaveCount(1);

  // taxes are added and put right; what cannot be is refused at its field
  await rowOf(page, 'back.pdf').getByRole('link').click();
  await detail.getByRole('button', { name: 'Add a tax' }).click();
  await detail.getByLabel('Rate in %, tax 1').fill('130');
  await detail.getByLabel('Tax, tax 1').fill('99');
  await detail.getByRole('button', { name: 'Confirm' }).click();
  await expect(detail.getByText('Enter a rate from 0 to 100, or nothing.')).toBeVisible();
  await expect(detail.getByText('This is more than the total.')).toBeVisible();
  await detail.getByLabel('Rate in %, tax 1').fill('13,5');
  await detail.getByLabel('Tax, tax 1').fill('3,81');
  await detail.getByRole('button', { name: 'Confirm' }).click();
  await expect(page.getByText('Confirmed', { exact: true })).toBeVisible();
  await expect(detail.getByLabel('Rate in %, tax 1')).toHaveValue('13.5');
  await page.context().close();
});

test('pairs are accepted above a score, undone, and made by dragging', async ({ browser }) => {
  const page = await pageOf(browser, 'tomas.brandao');
  await page.goto('/gather/pairs');
  const proposed = page.getByRole('list', { name: 'Proposed pairs' }).getByRole('listitem');
  await expect(proposed).toHaveCount(3);
  await expect(proposed.filter({ hasText: '2 lines add up to it' })).toContainText(/C-1031, line 3.*C-1031, line 4/);
  await page.getByLabel('that score at least').fill('95');
  await page.getByRole('button', { name: 'Accept 2 of 3' }).click();
  const paired = page.getByRole('list', { name: 'Paired lines' }).getByRole('listitem');
  await expect(paired).toHaveCount(2);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(proposed).toHaveCount(3);
  await page.getByRole('button', { name: 'Accept 2 of 3' }).click();
  await expect(paired).toHaveCount(2);
  await proposed.getByRole('button', { name: 'Accept' }).click();
  await expect(paired).toHaveCount(4);
  await expect(page.getByText('Nothing to propose')).toBeVisible();

  // a receipt dragged onto a line of another amount is its receipt all the same: the reviewer sees the difference
  const receipt = page
    .getByRole('list', { name: 'Receipts and charges' })
    .getByRole('listitem')
    .filter({ hasText: 'ferry' });
  const line = page
    .getByRole('list', { name: 'Lines', exact: true })
    .getByRole('listitem')
    .filter({ hasText: 'C-1031, line 1,' });
  await line.scrollIntoViewIfNeeded();
  await receipt.scrollIntoViewIfNeeded();
  const [from, to] = [await receipt.getByRole('button', { name: 'Drag' }).boundingBox(), await line.boundingBox()];
  await page.mouse.move(from!.x + 8, from!.y + 8);
  await page.mouse.down();
  await page.mouse.move(from!.x - 40, from!.y - 20, { steps: 4 });
  await page.mouse.move(to!.x + to!.width / 2, to!.y + to!.height / 2, { steps: 8 });
  await page.mouse.up();
  await expect(
    paired.filter({ hasText: 'C-1031, line 1,' }).getByRole('button', { name: 'Take the receipt off' }),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect(line).toBeVisible();
  await expect(
    paired.filter({ hasText: 'C-1031, line 1,' }).getByRole('button', { name: 'Take the receipt off' }),
  ).toHaveCount(0);

  // the same by choosing and pressing, without a mouse
  await receipt.getByRole('button', { name: 'Choose' }).press('Enter');
  await line.getByRole('button', { name: 'Pair here' }).press('Enter');
  await paired
    .filter({ hasText: 'C-1031, line 1,' })
    .getByRole('button', { name: 'Take the receipt off' })
    .press('Enter');
  await expect(line).toBeVisible();
  await page.context().close();
});

test('Gather fits a phone, and the camera is a source of files there', async ({ browser }) => {
  const page = await pageOf(browser, 'tomas.brandao');
  await page.setViewportSize({ width: 390, height: 780 });
  for (const [path, text] of [
    ['receipts', 'lunch.jpg'],
    ['charges', 'On no claim yet'],
    ['pairs', 'Paired'],
    ['cards', 'Company card'],
  ] as const) {
    await page.goto(`/gather/${path}`);
    await page.getByText(text).first().waitFor();
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  }
  await page.goto('/gather/receipts');
  await zoneOf(page).waitFor();
  const camera = page.getByLabel('Take a picture').and(page.locator('input'));
  await expect(camera).toHaveAttribute('capture', 'environment');
  const photo = {
    name: 'IMG_0001.jpg',
    mimeType: 'image/jpeg',
    buffer: Buffer.from(await drawSlip('Curlew Rooms', '2026-02-03', '64.00')),
  };
  await camera.setInputFiles([photo]);
  await expect(rowOf(page, 'IMG_0001.jpg')).toContainText('64.00', { timeout: 60_000 });
  await page.context().close();
});
