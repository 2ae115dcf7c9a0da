import type { Mutation } from './mutations.ts';

/** Logic of the screens, turned round; the tests beside it have to fail. */
const m = (rule: string, file: string, find: string, put: string): Mutation => ({
  rule: `web: ${rule}`,
  file,
  find,
  put,
  tests: ['web'],
});

export const WEB_MUTATIONS: Mutation[] = [
  m('rows with something loose fold', 'web/screens/Sheet/cells.ts', 'quiet: !loose && ', 'quiet: '),
];
