import type { Locator, Page } from '@playwright/test';

export interface TestFile {
  name: string;
  type: string;
  bytes: Uint8Array;
}

/** Files in the hands of the page: what a drag from the desktop, or the clipboard, would carry. */
const carry = (page: Page, files: readonly TestFile[]) =>
  page.evaluateHandle(
    (all) => {
      const carried = new DataTransfer();
      for (const { name, type, text } of all)
        carried.items.add(new File([Uint8Array.from(atob(text), (c) => c.charCodeAt(0))], name, { type }));
      return carried;
    },
    files.map(({ name, type, bytes }) => ({ name, type, text: Buffer.from(bytes).toString('base64') })),
  );

export async function drop(page: Page, target: Locator, files: readonly TestFile[]): Promise<void> {
  await target.dispatchEvent('drop', { dataTransfer: await carry(page, files) });
}

export async function paste(page: Page, files: readonly TestFile[]): Promise<void> {
  await page.evaluate(
    (clipboardData) => document.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true })),
    await carry(page, files),
  );
}

/** A file too large to be sent through the test's own connection: made in the page, then dropped. */
export async function dropLarge(target: Locator, name: string, size: number): Promise<void> {
  await target.evaluate(
    (element, file) => {
      const dataTransfer = new DataTransfer();
      dataTransfer.items.add(new File([new Uint8Array(file.size)], file.name));
      element.dispatchEvent(new DragEvent('drop', { dataTransfer, bubbles: true, cancelable: true }));
    },
    { name, size },
  );
}

/** Where files are added, and the entry of one of them. */
export const zoneOf = (page: Page): Locator => page.getByRole('region', { name: 'Add files' });
export const added = (page: Page, name: string): Locator =>
  page.getByRole('list', { name: 'Files being added' }).getByRole('listitem').filter({ hasText: name });
