import express, { type Express } from 'express';
import session from 'express-session';
import type { Pool } from 'pg';
import type { Logger } from 'pino';
import { RateLimiterPostgres } from 'rate-limiter-flexible';
import type { Services } from './platform/context.ts';
import { advanceRoutes } from './features/advances/advances.routes.ts';
import { approvalRoutes } from './features/approvals/approvals.routes.ts';
import { attachmentRoutes } from './features/attachments/attachments.routes.ts';
import { bookRoutes } from './features/book/book.routes.ts';
import { cardRoutes } from './features/cards/cards.routes.ts';
import { codeRoutes } from './features/codes/codes.routes.ts';
import { claimRoutes } from './features/claims/claims.routes.ts';
import { clearingRoutes } from './features/claims/clearing/clearing.routes.ts';
import { deskRoutes } from './features/desk/desk.routes.ts';
import { gatherRoutes } from './features/gather/gather.routes.ts';
import { historyRoutes } from './features/history/history.routes.ts';
import { journalRoutes } from './features/journals/journals.routes.ts';
import { messageRoutes } from './features/messages/messages.routes.ts';
import { planRoutes } from './features/plans/plans.routes.ts';
import { jobRoutes } from './features/jobs/jobs.routes.ts';
import { rateRoutes } from './features/rates/rates.routes.ts';
import { receiptRoutes } from './features/receipts/receipts.routes.ts';
import { statementRoutes } from './features/statements/statements.routes.ts';
import { setupRoutes } from './features/setup/setup.routes.ts';
import { periodRoutes } from './features/periods/periods.routes.ts';
import { sessionsRoutes } from './features/session/sessions.routes.ts';
import { tokenRoutes } from './features/session/tokens.routes.ts';
import { COOKIE, knowActor, SESSION_HOURS, sessionRoutes } from './features/session/session.routes.ts';
import { openApi } from '../contract/openApi.ts';
import type { Secrets } from './platform/http/sealed.ts';
import { keepKeys } from './platform/http/keepKeys.ts';
import { admit } from './platform/http/admit.ts';
import { answerErrors } from './platform/http/answerErrors.ts';
import { stopWithClient } from './platform/http/stopWithClient.ts';
import { createClosing, type Closing } from './platform/http/closing.ts';
import { atMost } from './platform/http/overload.ts';
import { contentPolicy, webPage } from './platform/http/webPage.ts';
import { createWatch } from './platform/http/watch.ts';
import { sessionStore } from './platform/http/sessionStore.ts';
import { logSlow } from './platform/http/logSlow.ts';
import { actorOf, sameOriginWrites } from './platform/http/guards.ts';
import { limiter, usualThrottles, type Throttles } from './platform/http/throttle.ts';
import { Refused } from './platform/http/refusal.ts';

export interface AppOptions {
  context: Services;
  /** For sessions and rate limits, which packages keep in PostgreSQL by themselves. */
  pool: Pool;
  log: Logger;
  /** The newest first: it signs and seals, the others are still known. */
  secrets: Secrets;
  demo: boolean;
  /** Folder of the built web application; null serves the API alone. */
  webFolder: string | null;
  /** Proxies whose X-Forwarded headers are believed, by number or address; null believes none. */
  trustProxy?: number | string[] | null;
  throttles?: Throttles;
  /** Told when the process is about to stop. */
  closing?: Closing;
}

/** At once in one process; a page asks for a handful. */
const MOST_REQUESTS = 300;
/** Open streams cost little and stay; there is one a page. */
const LIVE = '/messages/live';
const MOST_STREAMS = 5000;

/** The application: wiring only. */
export function createApp({
  context,
  pool,
  log,
  secrets,
  demo,
  webFolder,
  trustProxy,
  throttles = usualThrottles,
  closing = createClosing(),
}: AppOptions): Express {
  const app = express();
  app.disable('x-powered-by');
  if (trustProxy) app.set('trust proxy', trustProxy);
  const watch = createWatch();
  app.use(logSlow(log));
  app.use(watch.counting);
  app.use('/api', stopWithClient(pool));
  app.use(contentPolicy());
  app.use(watch.routes(context.db, () => context.reader.load(), closing));
  app.use('/api', closing.handler);
  if (webFolder) app.use(express.static(webFolder, { index: false, setHeaders: cacheAssets }));
  app.use(
    '/api',
    atMost(MOST_REQUESTS, (path) => path !== LIVE),
    atMost(MOST_STREAMS, (path) => path === LIVE),
  );
  app.use('/api', apiRouter({ context, pool, secrets, demo, throttles }));
  app.use('/api', () => {
    throw new Refused('not-found', { what: 'such address' });
  });
  if (webFolder) app.get('/{*path}', webPage(webFolder));
  app.use(answerErrors(log));
  return app;
}

type ApiOptions = Pick<AppOptions, 'context' | 'pool' | 'secrets' | 'demo'> & { throttles: Throttles };

function apiRouter({ context, pool, secrets, demo, throttles }: ApiOptions) {
  const router = express.Router();
  router.use((_req, res, next) => {
    res.set('Cache-Control', 'no-store');
    next();
  });
  router.use(sameOriginWrites);
  router.use(
    session({
      name: COOKIE,
      secret: [...secrets],
      store: sessionStore(pool),
      resave: false,
      saveUninitialized: false,
      rolling: true,
      cookie: { httpOnly: true, sameSite: 'strict', secure: 'auto', maxAge: SESSION_HOURS * 3_600_000 },
    }),
  );
  router.use(express.json({ limit: '1mb' }));
  router.use(knowActor(context));
  router.use(admit());
  router.use(keepKeys(context));
  router.use(sessionRoutes(context, { pool, throttles, secrets, demo }));
  const description = JSON.stringify(openApi());
  router.get('/openapi.json', (_req, res) => void res.type('json').send(description));
  const uploads = limiter(new RateLimiterPostgres(throttles.upload(pool)), (req) => actorOf(req).id);
  router.use(
    sessionsRoutes(context),
    tokenRoutes(context),
    bookRoutes(context),
    codeRoutes(context),
    approvalRoutes(context),
    deskRoutes(context),
    clearingRoutes(context),
    claimRoutes(context, uploads),
    planRoutes(context, uploads),
    advanceRoutes(context, uploads),
    messageRoutes(context),
    attachmentRoutes(context),
    journalRoutes(context),
    periodRoutes(context),
    setupRoutes(context),
    rateRoutes(context),
    jobRoutes(context),
    historyRoutes(context),
    receiptRoutes(context, uploads),
    cardRoutes(context),
    statementRoutes(context),
    gatherRoutes(context),
  );
  return router;
}

/** Built files carry their hash in their name, so they never change. */
function cacheAssets(res: { setHeader(name: string, value: string): void }, path: string): void {
  if (path.includes('/assets/')) res.setHeader('Cache-Control', 'public, max-age=31536000, immutable');
}
