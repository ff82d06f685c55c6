/** The arrows: app, jobs → flows → db, outside, documents → core; app → ui → input → core. Never backwards. */
const room = (name) => `^src/${name}/`;
const only = (from, allowed, comment) => ({
  name: `${from}-knows-only`,
  severity: 'error',
  comment,
  from: { path: room(from) },
  to: { path: '^(src|standins|bin|tests)/', pathNot: [room(from), ...allowed] },
});
const TESTS = '(\\.test\\.tsx?$|^tests/)';

module.exports = {
  forbidden: [
    only('core', [], 'what is true depends on nothing'),
    only('db', [room('core')], 'what is remembered knows what is true'),
    only('outside', [room('core')], 'who we talk to knows what is true'),
    only('documents', [room('core')], 'what we print knows what is true'),
    only(
      'flows',
      [room('db'), room('outside'), room('documents'), room('core')],
      'what happens is the only place where these meet',
    ),
    only('input', [room('core')], 'the rules of what may be sent, for whoever sends and whoever receives'),
    only('ui', [room('core'), room('input')], 'what is seen never knows what is remembered'),
    only(
      'jobs',
      [room('flows'), '^src/outside/(log|settings)', '^src/db/(jobs|worker-life)\\.ts$'],
      'a task only calls its flow; the queue itself is in db',
    ),
    only(
      'app',
      [room('flows'), room('ui'), room('input'), room('core'), '^src/outside/log'],
      'where it is: routes knock at flows',
    ),
    {
      name: 'core-is-pure',
      severity: 'error',
      comment: 'no platform module, no package but those that read a text and know nothing else',
      from: { path: room('core') },
      to: {
        pathNot: 'node_modules/(saxes|ibantools|papaparse)/',
        dependencyTypes: ['core', 'npm', 'npm-dev', 'npm-optional', 'npm-peer', 'npm-no-pkg', 'npm-unknown'],
      },
    },
    {
      name: 'only-db-knows-pg',
      severity: 'error',
      from: { path: '^(src|standins)/', pathNot: room('db') },
      to: { path: 'node_modules/(pg|node-pg-migrate)/' },
    },
    {
      name: 'standins-know-only-core',
      severity: 'error',
      from: { path: '^standins/' },
      to: { path: '^src/', pathNot: room('core') },
    },
    {
      name: 'only-the-door-opens-transactions',
      severity: 'error',
      comment: 'whoever reads or writes came in by an operation, with what that needs',
      from: { path: room('flows'), pathNot: room('flows/door') },
      to: { path: '^src/db/transaction' },
    },
    {
      name: 'only-the-door-makes-contexts',
      severity: 'error',
      comment: 'a handler or a job calls operations; programContext is for the programs beside the application',
      from: { path: '^src/', pathNot: room('flows/door') },
      to: { path: '^src/flows/door/(context|program)' },
    },
    {
      name: 'no-circles-between-folders',
      severity: 'error',
      comment: 'of two folders of the trade, one knows the other',
      scope: 'folder',
      from: { path: '^src/(core|flows)/' },
      to: { path: '^src/(core|flows)/', circular: true },
    },
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    { name: 'resolvable', severity: 'error', from: {}, to: { couldNotResolve: true, pathNot: '\\.css$' } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: TESTS },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      extensions: ['.ts', '.tsx', '.js', '.mjs'],
      conditionNames: ['import', 'node', 'default'],
      exportsFields: ['exports'],
    },
  },
};
