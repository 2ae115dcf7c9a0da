import { chromium, type Browser } from '@playwright/test';
import config from '../../playwright.config.ts';
import { longDate, type Facts } from './facts.ts';

/**
 * Receipts as a browser sets them, which the reader was never made with: each of forty layouts takes one part for every
 * place of a receipt, a width and a typeface of its own.
 */
type Part = (f: Facts) => string;
const m = (f: Facts, minor: number): string => f.locale.number(minor);
const row = (left: string, right: string, style = ''): string =>
  `<div class="row" style="${style}"><span>${left}</span><span>${right}</span></div>`;
const signed = (f: Facts, minor: number): string =>
  f.locale.decimals === 2 && ['£', '$', '¥'].includes(f.locale.sign)
    ? `${f.locale.sign}${m(f, minor)}`
    : `${m(f, minor)} ${f.locale.sign}`;

const HEADS: Part[] = [
  (f) => `<h1 style="text-align:center">${f.merchant}</h1><p style="text-align:center">${f.street}</p>`,
  (f) =>
    `<div class="row"><b style="font-size:1.5em">${f.merchant}</b><span style="text-align:right">${f.street}<br>${f.locale.words.taxNo} ${f.taxNumber}</span></div><hr>`,
  (f) => `<h1 style="background:#222;color:#fff;padding:.4em;text-align:center">${f.merchant}</h1><p>${f.street}</p>`,
  (f) =>
    `<p style="letter-spacing:.15em;text-transform:uppercase"><b>${f.merchant}</b></p><p>${f.street}</p><p>${f.locale.words.receipt}</p>`,
  (f) =>
    `<div class="row"><h2>${f.locale.words.receipt}</h2><span style="text-align:right"><b>${f.merchant}</b><br>${f.street}</span></div>`,
  (f) =>
    `<h1 style="font-style:italic">${f.merchant}</h1><p>${f.street} · ${f.locale.words.taxNo}: ${f.taxNumber}</p><hr style="border-style:dashed">`,
];
const METAS: Part[] = [
  (f) => row(`${f.locale.date(f.date)}`, f.time),
  (f) =>
    `<table><tr><th>${f.locale.words.date}</th><th>#</th><th>POS</th></tr><tr><td>${f.locale.date(f.date)}</td><td>00${Number(f.card) % 97}</td><td>03</td></tr></table>`,
  (f) => `<p>${f.locale.words.date}: ${longDate(f.date, f.locale)}</p>`,
  (f) => `<p>${f.locale.words.receipt} 2026/${Number(f.card) % 991} · ${f.locale.date(f.date)} · ${f.time}</p>`,
  (f) =>
    `<dl><dt>${f.locale.words.date}</dt><dd>${f.locale.date(f.date)} ${f.time}</dd><dt>Terminal</dt><dd>T-${f.card[0]}2</dd></dl>`,
];
const ITEMS: Part[] = [
  (f) => f.items.map((i) => row(i.name, m(f, i.minor))).join(''),
  (f) => f.items.map((i) => `<div>${i.name}</div>${row('&nbsp;&nbsp;1 × ' + m(f, i.minor), m(f, i.minor))}`).join(''),
  (f) =>
    `<table class="grid"><tr><th>#</th><th style="text-align:left">${f.locale.words.receipt}</th><th>${f.locale.currency}</th></tr>${f.items.map((i, k) => `<tr><td>${k + 1}</td><td style="text-align:left">${i.name}</td><td>${m(f, i.minor)}</td></tr>`).join('')}</table>`,
  (f) =>
    f.items
      .map((i) => `<div class="row leader"><span>${i.name}</span><i></i><span>${m(f, i.minor)}</span></div>`)
      .join(''),
  (f) => f.items.map((i) => row(`1 ${i.name}`, `${signed(f, i.minor)}`)).join(''),
  (f) => f.items.map((i) => row(i.name, `${m(f, i.minor)} A`)).join('<div style="height:.2em"></div>'),
];
const SUMS: Part[] = [
  (f) => `<hr>${row(`<b>${f.locale.words.total}</b>`, `<b>${signed(f, f.total)}</b>`, 'font-size:1.35em')}`,
  (f) =>
    `<hr>${row(f.locale.words.sub, m(f, f.net))}${row(`${f.locale.words.tax} ${f.rate}%`, m(f, f.tax))}${row(`<b>${f.locale.words.total} ${f.locale.currency}</b>`, `<b>${m(f, f.total)}</b>`)}`,
  (f) =>
    `<div class="row" style="background:#333;color:#fff;padding:.35em;font-size:1.2em"><span>${f.locale.words.total}</span><span>${f.locale.currency} ${m(f, f.total)}</span></div>`,
  (f) =>
    `<div style="border:2px solid #222;text-align:center;padding:.5em;margin:.5em 0">${f.locale.words.total}<div style="font-size:1.9em">${signed(f, f.total)}</div></div>`,
  (f) =>
    `<hr style="border-style:double">${row(`${f.locale.words.total}:`, `${f.locale.currency} ${m(f, f.total)}`, 'font-weight:bold')}`,
];
const TAXES: Part[] = [
  (f) => `<p>incl. ${f.rate}% ${f.locale.words.tax} ${m(f, f.tax)}</p>`,
  (f) =>
    `<table class="grid"><tr><th>%</th><th>${f.locale.words.sub}</th><th>${f.locale.words.tax}</th><th>${f.locale.words.total}</th></tr><tr><td>${f.rate}%</td><td>${m(f, f.net)}</td><td>${m(f, f.tax)}</td><td>${m(f, f.total)}</td></tr></table>`,
  (f) => row(`A ${f.locale.words.tax} ${f.rate} %`, m(f, f.tax)),
  (f) => `${row(`${f.locale.words.sub} A`, m(f, f.net))}${row(`${f.locale.words.tax} ${f.rate}%`, m(f, f.tax))}`,
];
const PAYS: Part[] = [
  (f) => `${row(f.locale.words.card, signed(f, f.total))}<p>VISA XXXX XXXX XXXX ${f.card}</p>`,
  (f) => `<p>Mastercard **** ${f.card}</p>`,
  (f) => `<p>${f.locale.words.card} XXXXXXXXXXXX${f.card}</p>`,
  (f) => row(`VISA ••${f.card}`, m(f, f.total)),
  (f) => `<p>${f.locale.words.card} ########${f.card}</p>`,
];
const FACES = ['DejaVu Sans', 'DejaVu Serif', 'DejaVu Sans Mono', 'DejaVu Sans Condensed'];
const WIDTHS = [320, 400, 520, 680, 860];
export const SHEETS = 40;

/** The receipt of some facts in one of the layouts, as a page. */
export function sheetOf(layout: number, f: Facts): string {
  const of = <T>(parts: readonly T[], step: number): T =>
    parts[(layout * step + Math.floor(layout / parts.length)) % parts.length]!;
  const body = [HEADS, METAS, ITEMS, SUMS, TAXES, PAYS].map((parts, i) => of(parts, i + 1)(f));
  const width = of(WIDTHS, 1);
  const css = `body{margin:0;padding:26px;width:${width}px;box-sizing:border-box;font:${width < 450 ? 15 : 17}px '${of(FACES, 1)}';color:#1a1a1a;background:#fff}
    .row{display:flex;justify-content:space-between;gap:1em;padding:.15em 0}.leader i{flex:1;border-bottom:2px dotted #555;margin:0 .3em .3em}
    table{width:100%;border-collapse:collapse;margin:.5em 0}td,th{text-align:right;padding:.2em .4em}.grid td,.grid th{border:1px solid #777}
    dl{display:grid;grid-template-columns:auto 1fr;gap:.2em 1em}dd{margin:0}h1{font-size:1.5em;margin:.2em 0}p{margin:.35em 0}`;
  const tail = `<p style="text-align:center">${f.locale.words.thanks}</p><p>${f.locale.words.taxNo} ${f.taxNumber}</p>`;
  return `<meta charset="utf-8"><style>${css}</style><body>${body.join('\n')}${tail}</body>`;
}

/** Sets pages in a browser, as pictures of twice their size in pixels. */
export async function openPress(): Promise<{ print(html: string): Promise<Buffer>; close(): Promise<void> }> {
  const browser: Browser = await chromium.launch(config.use!.launchOptions);
  const page = await browser.newPage({ deviceScaleFactor: 2, viewport: { width: 900, height: 600 } });
  return {
    async print(html) {
      await page.setContent(html);
      return page.locator('body').screenshot();
    },
    close: () => browser.close(),
  };
}
