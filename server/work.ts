import type { Services } from './platform/context.ts';
import type { RunningJobs } from './platform/jobs/jobs.ts';
import { forgetKeys } from './platform/db/forgetKeys.ts';
import { sendSeals } from './features/history/seals.service.ts';
import { sendLetter } from './features/session/passwords.service.ts';
import { clearChosen } from './features/claims/clearing/clearing.service.ts';
import { endHolds } from './features/claims/holds.service.ts';
import { readActor } from './features/session/session.service.ts';
import { assessAgain } from './features/claims/reassess.service.ts';
import { goOnWithRoutes } from './features/approvals/goOn.service.ts';
import { remindAdvances } from './features/advances/remind.service.ts';
import { sendDigests, sendMail } from './features/messages/mail.service.ts';
import { tellSubstitutes } from './features/messages/substitutes.service.ts';
import { lapsePlans } from './features/plans/decide.service.ts';
import { readReceipt } from './features/receipts/receipts.service.ts';
import { fetchFeed } from './features/statements/feed.service.ts';
import { selectAllWaiting } from './records/receipts/receipts.queries.ts';
import { USE_OF_TODAY } from './records/claims/usesOf.ts';

/** Twenty past midnight, when the bank has delivered the day. */
const NIGHTLY = '20 0 * * *';
/** When the day is over everywhere but at the date line's end. */
const DAILY = '40 11 * * *';
/** Every hour, since each entity's day begins at another. */
const HOURLY = '5 * * * *';
/** What could not be sent before is tried again. */
const OFTEN = '*/5 * * * *';

/** Connects the queue's jobs with what they do, and the clock with the jobs of every night and hour. */
export async function startWork(services: Services, jobs: RunningJobs): Promise<void> {
  for (let i = 0; i < services.reader.atOnce; i += 1)
    await jobs.work('read-receipt', (file) => readReceipt(services, file));
  // what needs the bank or the post office is taken only by a process that has it
  if (services.bank) await jobs.work('fetch-feed', () => fetchFeed(services));
  await jobs.work('assess-claims', ({ key }) => assessAgain(services, key));
  if (services.mailer) {
    await jobs.work('send-password-letter', ({ email }) => sendLetter(services, email));
    await jobs.work('send-mail', () => sendMail(services));
    await jobs.work('send-digests', () => sendDigests(services));
  }
  if (services.seals.folder !== null || services.mailer) await jobs.work('send-seals', () => sendSeals(services));
  await jobs.work('clear-claims', (data) => clearChosen(services, (id) => readActor(services, id), data));
  await jobs.work('end-holds', () => endHolds(services));
  await jobs.work('lapse-plans', () => lapsePlans(services));
  await jobs.work('tell-substitutes', () => tellSubstitutes(services));
  await jobs.work('forget-keys', () => forgetKeys(services));
  await jobs.work('go-on-with-routes', () => goOnWithRoutes(services));
  await jobs.work('remind-advances', () => remindAdvances(services));
  if (services.bank) await jobs.every(NIGHTLY, 'fetch-feed', {});
  await jobs.every(HOURLY, 'assess-claims', { key: USE_OF_TODAY });
  await jobs.every(DAILY, 'send-seals', {});
  await jobs.every(DAILY, 'lapse-plans', {});
  await jobs.every(DAILY, 'forget-keys', {});
  await jobs.every(HOURLY, 'end-holds', {});
  await jobs.every(HOURLY, 'remind-advances', {});
  await jobs.every(HOURLY, 'go-on-with-routes', {});
  await jobs.every(HOURLY, 'tell-substitutes', {});
  await jobs.every(HOURLY, 'send-digests', {});
  await jobs.every(OFTEN, 'send-mail', {});
  await catchUp(services);
}

/** After a stop: files that wait are asked to be read, and the bank is asked what came meanwhile. Twice does no harm. */
async function catchUp({ db, jobs, bank }: Services): Promise<void> {
  await jobs.ask(db, 'send-mail', {});
  for (const sha256 of await selectAllWaiting(db)) await jobs.ask(db, 'read-receipt', { sha256 });
  if (bank) await jobs.ask(db, 'fetch-feed', {});
}
