import { correctionLifecycle, settingLifecycle } from '../core/workflow/lifecycles/keeping.ts';
import * as jobs from './jobs.ts';
import * as rates from './rates.ts';
import { route, whoMay, type RouteContract } from './route.ts';
import * as setup from './setup.ts';

/** Every address of master data, of corrections of published rates, and of work that failed. */
export const SETUP_ROUTES: readonly RouteContract[] = [
  route('get', '/setup', setup.KEEPERS, 'The kinds of master data.', setup.kindsAnswer),
  route('get', '/setup/:kind', setup.KEEPERS, 'All rows of a kind.', setup.rowsAnswer),
  route('get', '/setup/:kind/rows.csv', setup.KEEPERS, 'All rows of a kind as a file.', null, { type: 'text/csv' }),
  route('get', '/setup/:kind/history/:key', setup.KEEPERS, 'What happened to a key.', setup.rowHistoryAnswer),
  route(
    'post',
    '/setup/:kind',
    whoMay(settingLifecycle, 'add'),
    'Adds a row, or changes what may change.',
    setup.rowsAnswer,
    {
      body: setup.addRowSchema,
      status: 201,
    },
  ),
  route('post', '/setup/:kind/end', whoMay(settingLifecycle, 'end'), 'Ends a row.', setup.rowsAnswer, {
    body: setup.endRowSchema,
  }),
  route('get', '/failed-jobs', ['administrator'], 'Work in the background that failed.', jobs.failedJobsAnswer),
  route('post', '/failed-jobs/:id/again', ['administrator'], 'Tries given-up work again.', jobs.failedJobsAnswer, {
    body: jobs.againSchema,
  }),
  route('get', '/rate-corrections', setup.KEEPERS, 'Corrections of published rates.', rates.correctionsAnswer),
  route(
    'post',
    '/rate-corrections',
    whoMay(correctionLifecycle, 'ask'),
    'Asks for a published rate to be put right.',
    rates.correctionsAnswer,
    { body: rates.askCorrectionSchema, status: 201 },
  ),
  route(
    'post',
    '/rate-corrections/:id/confirm',
    whoMay(correctionLifecycle, 'confirm'),
    'Puts a published rate right, as somebody else asked for.',
    rates.correctionsAnswer,
    { body: rates.decideCorrectionSchema },
  ),
  route(
    'post',
    '/rate-corrections/:id/drop',
    whoMay(correctionLifecycle, 'drop'),
    'Drops a correction; the rate stays.',
    rates.correctionsAnswer,
    { body: rates.decideCorrectionSchema },
  ),
  route(
    'post',
    '/setup/:kind/file',
    whoMay(settingLifecycle, 'add'),
    'Takes a file of rows, or says what it would do.',
    setup.fileAnswer,
    {
      body: setup.fileSchema,
    },
  ),
];
