import type { Page } from '@playwright/test';

/** A view of the application: who sees it, and how it is reached. */
export interface View {
  name: string;
  who: string | null;
  open: (page: Page) => Promise<void>;
}

/** Where decisions are taken, and where routes are tried. */
export const VIEWS_OF_DECISIONS: View[] = [
  {
    name: 'approvals',
    who: 'siobhan.odowd',
    open: async (page) => {
      await page.goto('/approvals');
      await page.getByRole('checkbox').first().check();
    },
  },
  {
    name: 'a claim as its approver',
    who: 'siobhan.odowd',
    open: async (page) => {
      await page.goto('/claims/C-1025');
      await page.getByRole('button', { name: 'Comparisons of line 1' }).click();
      await page.getByRole('button', { name: 'Decline line 2…' }).click();
      await page.getByText('ask nobody').click();
    },
  },
  {
    name: 'a route tried',
    who: 'leilani.kahue',
    open: async (page) => {
      await page.goto('/setup');
      await page.getByLabel('Total').fill('16000.00');
      await page.getByRole('button', { name: 'Add a code' }).click();
      await page.getByRole('button', { name: 'Show the route' }).click();
      await page.getByText('Usual approver').waitFor();
    },
  },
];
