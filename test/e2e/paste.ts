import type { Page } from '@playwright/test';

/** Pastes into whatever has the focus, as a spreadsheet's clipboard would. */
export async function paste(page: Page, text: string): Promise<void> {
  await page.evaluate((block) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData('text/plain', block);
    const event = new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true });
    document.activeElement!.dispatchEvent(event);
  }, text);
}
