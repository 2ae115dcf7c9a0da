import type { View } from './viewsOfDecisions.ts';

/** Advances, as those see them who ask for, grant, pay and look back on them; and what one hears of. */
export const VIEWS_OF_ADVANCES: View[] = [
  {
    name: 'advances',
    who: 'odd.fjellheim',
    open: async (page) => {
      await page.goto('/advances');
      await page.getByRole('region', { name: 'To pay out' }).waitFor();
    },
  },
  {
    name: 'an advance that is paid out',
    who: 'odd.fjellheim',
    open: async (page) => {
      await page.goto('/advances/A-031');
      await page.getByRole('button', { name: 'Record money given back…' }).click();
      await page.getByLabel('How much, in KES').waitFor();
    },
  },
  {
    name: 'an advance to grant',
    who: 'maeve.tarrant',
    open: async (page) => {
      await page.goto('/advances/A-033');
      await page.getByRole('button', { name: 'Grant…' }).click();
      await page.getByLabel('Granted, in KES').fill('20000');
      await page.getByLabel('Why it is less').waitFor();
    },
  },
  {
    name: 'an advance in preparation',
    who: 'wanjiru.mbaya',
    open: async (page) => {
      await page.goto('/advances');
      await page.getByRole('button', { name: 'New advance' }).click();
      await page.getByLabel('What the money is for').fill('Fuel');
      await page.getByLabel('How much').fill('9000 kes');
      await page.keyboard.press('Enter');
      await page.getByRole('region', { name: 'Problems' }).waitFor();
    },
  },
  {
    name: 'the register of advances',
    who: 'odd.fjellheim',
    open: async (page) => {
      await page.goto('/advances/register');
      await page.getByRole('table', { name: 'One by one' }).waitFor();
    },
  },
  {
    name: 'messages',
    who: 'wanjiru.mbaya',
    open: async (page) => {
      await page.goto('/messages');
      await page.getByText('Siobhán O’Dowd approved A-033').waitFor();
    },
  },
];
