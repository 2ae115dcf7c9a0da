import { join } from 'node:path';
import { chromium } from '@playwright/test';
import config from '../playwright.config.ts';
import { addDays } from '../core/numbers/isoDate.ts';
import { viewOf } from '../test/fixtures/acts.ts';
import { journeyClaim } from '../test/fixtures/cleanClaims.ts';
import { startApi } from '../test/fixtures/startApi.ts';
import setup from '../test/fixtures/templateDatabase.ts';
import { todayHere } from '../web/parts/today.ts';
await setup();
const api = await startApi('bench_sheet', { webFolder: join(process.cwd(), 'build', 'web') });
const browser = await chromium.launch(config.use!.launchOptions);
for (const n of [300, 1000]) {
const [claimant, approver] = [await api.as('tomas.brandao'), await api.as('siobhan.odowd')];
const days = Array.from({ length: n }, (_, i) => addDays(todayHere(), -80 + (i % 75)));
const number = await journeyClaim({ claimant, approver }, days, `Long ${n}`);
const maeve = await api.as('maeve.tarrant');
for (const mail of ['odd.fjellheim', 'leilani.kahue', 'noor.aldosari', 'maeve.tarrant']) {
  const { claim } = await viewOf(maeve, number); if (claim.state === 'in review') break;
  await (await api.as(mail)).post(`/claims/${number}/approve`, { revision: claim.revision }); }
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await page.addInitScript(`globalThis.__name = (of) => of; const W=Worker; window.Worker=class extends W{ constructor(...a){super(...a); this.addEventListener('message',()=>{window.__got=performance.now()});} postMessage(m){ if(m.type==='change') window.__sent=performance.now(); super.postMessage(m);} }`);
await page.request.post(`${api.url}/api/session`, { data: { email: 'maeve.tarrant@saltmarsh.example', password: 'saltmarsh' } });
await page.goto(`${api.url}/desk`); await page.getByRole('list', { name: 'Claims' }).waitFor();
const o=Date.now(); await page.goto(`${api.url}/desk/${number}`); await page.getByLabel('Settlement').waitFor(); console.log(n,'open',Date.now()-o);
console.log(await page.evaluate(()=>JSON.stringify(performance.getEntriesByType('resource').filter((r:any)=>r.duration>50).map((r:any)=>[r.name.slice(-40),Math.round(r.startTime),Math.round(r.duration), r.transferSize]))));
await page.getByRole('button', { name: /tied throughout/ }).click();
await page.keyboard.press('s'); await page.getByLabel('Value of share 1').waitFor();
await page.waitForTimeout(500);
const cdp = await page.context().newCDPSession(page); await cdp.send('Profiler.enable'); await cdp.send('Profiler.start');
for (let r=0;r<12;r++) { console.log(n, await page.evaluate((round)=>new Promise((resolve)=>{ const began=performance.now(); const input=document.querySelector('[aria-label="Value of share 1"]') as HTMLInputElement; const seen=new MutationObserver(()=>{seen.disconnect(); const t=performance.now(); const w=(window as any); resolve(`sent ${(w.__sent-began).toFixed(1)} got ${(w.__got-began).toFixed(1)} drawn ${(t-began).toFixed(1)}`)}); seen.observe(input.closest('table')!,{subtree:true,characterData:true,childList:true}); Object.getOwnPropertyDescriptor(HTMLInputElement.prototype,'value')!.set!.call(input,String(20+round)); input.dispatchEvent(new Event('input',{bubbles:true})); }), r)); }
const { profile } = await cdp.send('Profiler.stop') as any;
const self = new Map<string, number>(); const dt = profile.timeDeltas; const byId = new Map(profile.nodes.map((x:any)=>[x.id,x]));
profile.samples.forEach((id:number,i:number)=>{ const f=(byId.get(id) as any).callFrame; const k=f.functionName+' '+f.url.slice(-30)+':'+f.lineNumber+':'+f.columnNumber; self.set(k,(self.get(k)??0)+dt[i]/1000); });
console.log([...self].sort((a,b)=>b[1]-a[1]).slice(0,14).map(([k,v])=>v.toFixed(1)+' '+k).join('\n'));
await page.close();
}
process.exit(0);
