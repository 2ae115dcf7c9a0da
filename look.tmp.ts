import { chromium, type Page } from '@playwright/test';
import { execSync } from 'node:child_process';
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell' });
const base = 'http://localhost:4500';
export async function as(mail: string, size = { width: 1280, height: 800 }) {
  const c = await browser.newContext({ viewport: size });
  const p = await c.newPage();
  p.on('console', (m) => m.type() === 'error' && console.log('CONSOLE', m.text().slice(0, 300)));
  p.on('pageerror', (e) => console.log('PAGEERROR', String(e).slice(0, 300)));
  const pw = await (await fetch(`${base}/api/demo/people`)).json().catch(() => ({ password: '' }));
  await p.goto(base);
  const r = await p.request.post(`${base}/api/session`, { headers: { origin: base }, data: { email: `${mail}@saltmarsh.example`, password: (pw as any).password } });
  if (!r.ok()) console.log('sign in', r.status(), await r.text());
  return p;
}
export const shot = (p: Page, n: string) => p.screenshot({ path: `/tmp/shots/${n}.png` });
export const end = () => browser.close();
export { base };
