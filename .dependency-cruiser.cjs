/** The arrows of docs/architecture.md, kept by the lint step. */
const forbid = (name, from, to, comment) => ({ name, severity: 'error', comment, from, to });

module.exports = {
  forbidden: [
    forbid('no-circular', {}, { circular: true }, 'Files depend on each other in one direction.'),
    forbid(
      'core-is-pure',
      { path: '^core/', pathNot: '\\.test\\.ts$' },
      { path: '^(server|web|cli|demo|standins|bin|test)/' },
      'The core knows nobody.',
    ),
    forbid(
      'core-no-io',
      { path: '^core/', pathNot: '\\.test\\.ts$' },
      { dependencyTypes: ['core'] },
      'The core does no input or output.',
    ),
    forbid(
      'core-only-zod',
      { path: '^core/', pathNot: '\\.test\\.ts$' },
      { path: 'node_modules', pathNot: 'node_modules/zod' },
      'Zod is the one package of the core.',
    ),
    forbid(
      'lib-is-private',
      { path: '^core/([^/]+)/' },
      { path: '^core/[^/]+/_lib/', pathNot: '^core/$1/_lib/' },
      '_lib belongs to its area.',
    ),
    forbid(
      'web-to-core-only',
      { path: '^web/' },
      { path: '^(server|demo|cli|standins)/' },
      'The web application reaches the server over HTTP alone.',
    ),
    forbid(
      'server-not-web',
      { path: '^server/', pathNot: '\\.test\\.ts$' },
      { path: '^(web|cli|test)/' },
      'The server does not know the screens.',
    ),
    forbid(
      'server-not-demo',
      { path: '^server/', pathNot: '^server/db/prepare\\.ts$' },
      { path: '^demo/' },
      'Only preparing a database knows the demo.',
    ),
    forbid(
      'knex-in-queries',
      { path: '^server/', pathNot: '(\\.queries\\.ts|^server/db/.*|\\.test\\.ts)$' },
      { path: 'node_modules/knex' },
      'Only queries and db/ touch Knex.',
    ),
    forbid(
      'express-in-routes',
      { path: '^server/', pathNot: '(\\.routes\\.ts|^server/http/.*|^server/app\\.ts|\\.test\\.ts)$' },
      { path: 'node_modules/express/' },
      'Only routes and http/ touch requests.',
    ),
    forbid(
      'standins-alone',
      { path: '^standins/' },
      { path: '^(core|server|web|demo|cli)/' },
      'Shared code would let one bug agree with itself.',
    ),
  ],
  options: {
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '^(build|test-results)/' },
  },
};
