/** The arrows of docs/architecture.md, kept by the lint step. */
const forbid = (name, from, to, comment) => ({ name, severity: 'error', comment, from, to });
const TESTS = '\\.test\\.tsx?$';

/** The rooms of the core from the ground up: each may know those before it. */
const ROOMS = ['numbers', 'documents', 'figures', 'ledger', 'assess', 'explain', 'evidence', 'workflow', 'routing'];
const upwards = ROOMS.slice(0, -1).map((room, i) =>
  forbid(
    `core-${room}-knows-only-what-is-below`,
    { path: `^core/${room}/`, pathNot: TESTS },
    { path: `^core/(${ROOMS.slice(i + 1).join('|')})/` },
    'The rooms of the core stand on each other in one order.',
  ),
);

module.exports = {
  forbidden: [
    forbid('no-circular', {}, { circular: true }, 'Files depend on each other in one direction.'),
    {
      ...forbid('no-circular-folders', {}, { circular: true }, 'Folders depend on each other in one direction.'),
      scope: 'folder',
    },
    ...upwards,
    forbid(
      'core-is-pure',
      { path: '^core/', pathNot: TESTS },
      { path: '^(server|web|cli|demo|standins|bin|test|contract)/' },
      'The core knows nobody.',
    ),
    forbid(
      'core-no-io',
      { path: '^core/', pathNot: TESTS },
      { dependencyTypes: ['core'] },
      'The core does no input or output.',
    ),
    forbid(
      'core-only-zod',
      { path: '^core/', pathNot: TESTS },
      { path: 'node_modules', pathNot: 'node_modules/zod' },
      'Zod is the one package of the core.',
    ),
    forbid(
      'lib-is-private',
      { path: '^(core/.+)/', pathNot: '^core/.+/_lib/' },
      { path: '^core/.+/_lib/', pathNot: '^$1/_lib/' },
      '_lib belongs to its area.',
    ),
    forbid(
      'contract-on-core',
      { path: '^contract/' },
      { path: '^(server|web|cli|demo|standins|bin|test)/' },
      'The contract stands on the core alone.',
    ),
    forbid(
      'web-to-core-and-contract',
      { path: '^web/' },
      { path: '^(server|demo|cli|standins)/' },
      'The web application reaches the server over HTTP alone.',
    ),
    forbid(
      'server-not-web',
      { path: '^server/', pathNot: TESTS },
      { path: '^(web|cli|test)/' },
      'The server does not know the screens.',
    ),
    forbid(
      'server-not-demo',
      { path: '^server/', pathNot: '^server/(prepare|year)\\.ts$' },
      { path: '^demo/' },
      'Only preparing a database knows the demo.',
    ),
    forbid(
      'platform-knows-no-records',
      { path: '^server/platform/', pathNot: '\\.test\\.ts$' },
      { path: '^server/(records|features)/' },
      'What every feature stands on does not know the features.',
    ),
    forbid(
      'records-know-no-features',
      { path: '^server/records/', pathNot: TESTS },
      { path: '^server/features/' },
      'What is stored does not know who asks for it.',
    ),
    forbid(
      'features-apart',
      { path: '^server/features/([^/]+)/', pathNot: TESTS },
      { path: '^server/features/', pathNot: '^server/features/$1/' },
      'No feature borrows from another; what two need is a record or the platform.',
    ),
    forbid(
      'knex-in-queries',
      { path: '^server/', pathNot: '(\\.queries\\.ts|^server/platform/db/.*|\\.test\\.ts)$' },
      { path: 'node_modules/knex' },
      'Only queries and db/ touch Knex.',
    ),
    forbid(
      'express-in-routes',
      { path: '^server/', pathNot: '(\\.routes\\.ts|^server/platform/http/.*|^server/app\\.ts|\\.test\\.ts)$' },
      { path: 'node_modules/express/' },
      'Only routes and http/ touch requests.',
    ),
    forbid(
      'standins-alone',
      { path: '^standins/' },
      { path: '^(core|server|web|demo|cli|contract)/' },
      'Shared code would let one bug agree with itself.',
    ),
  ],
  options: {
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '^(build|test-results)/|\\.test\\.ts$' },
  },
};
