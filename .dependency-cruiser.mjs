/**
 * Who may import whom (docs/architecture.md). In both lists a folder may import from those above it and from none below;
 * there is no circle of files or of folders.
 */
const core = [
  ['strings', '^core/(?:strings|hash|remember|platform\\.d)\\.ts$'],
  ['measure', '^core/measure/'],
  ['words', '^core/words/'],
  ['addresses', '^core/addresses/'],
  ['json', '^core/json/'],
  ['page/source', '^core/page/source/'],
  ['page/read', '^core/page/read/'],
  ['page/splice', '^core/page/splice/'],
  ['page/edits', '^core/page/edits/'],
  ['page/still', '^core/page/still/'],
  ['page', '^core/page/[^/]+$'],
  ['headings', '^core/headings/'],
  ['structured-data', '^core/structured-data/'],
  ['wording', '^core/wording/'],
  ['results', '^core/results/'],
  ['site', '^core/site/'],
  ['keywords', '^core/keywords/'],
  ['progress', '^core/progress/'],
  ['rules', '^core/rules/'],
  ['work', '^core/work/'],
  ['conformance', '^core/conformance/'],
  ['exchange', '^core/exchange/'],
]
const app = [
  ['ui', '^app/ui/'],
  ['store', '^app/store/'],
  ['workers', '^app/workers/'],
  ['session', '^app/session/'],
  ['result', '^app/result/'],
  ['bulk', '^app/bulk/'],
  ['house-style', '^app/house-style/'],
  ['templates', '^app/templates/'],
  ['site-data', '^app/site-data/'],
  ['hand-off', '^app/hand-off/'],
  ['review', '^app/review/'],
  ['progress', '^app/progress/'],
  ['first-pass', '^app/first-pass/'],
  ['merge', '^app/merge/'],
  ['shelf', '^app/shelf/'],
  ['intake', '^app/intake/'],
  ['suggestions', '^app/suggestions/'],
  ['again', '^app/again/'],
  ['ledger', '^app/ledger/'],
  ['keywords', '^app/keywords/'],
  ['margin', '^app/margin/'],
  ['sheets', '^app/sheets/'],
  ['desk', '^app/desk/'],
  ['site', '^app/site/'],
  ['routes', '^app/routes/'],
]
const notTests = '\\.test\\.tsx?$'

/** One rule for each folder: nothing from those that come after it. */
const inOrder = (whole, folders) =>
  folders.slice(0, -1).map(([name, path], i) => ({
    name: `${whole}/${name} imports only what comes before it`,
    severity: 'error',
    from: { path, pathNot: notTests },
    to: { path: folders.slice(i + 1).map(([, later]) => later) },
  }))

/** @type {import('dependency-cruiser').IConfiguration} */
export default {
  forbidden: [
    ...inOrder('core', core),
    ...inOrder('app', app),
    {
      name: 'core stands alone',
      severity: 'error',
      from: { path: '^core/', pathNot: notTests },
      to: { path: '^(?:app|server|cli|bench|tests|stand-ins|scripts)/' },
    },
    {
      name: 'nothing imports the doors',
      severity: 'error',
      from: { path: '^app/' },
      to: { path: '^(?:cli|bench|tests)/' },
    },
    {
      name: 'only loaders and actions reach the server',
      severity: 'error',
      from: { path: '^app/', pathNot: '^app/routes/' },
      to: { path: '^server/' },
    },
    {
      name: 'server and command line do not import the application',
      severity: 'error',
      from: { path: '^(?:server|cli)/', pathNot: notTests },
      to: { path: '^(?:app|bench|tests)/' },
    },
    {
      name: 'no circle of files',
      severity: 'error',
      from: { pathNot: notTests },
      to: { circular: true },
    },
    {
      name: 'no circle of folders',
      severity: 'error',
      scope: 'folder',
      from: {},
      to: { circular: true },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: ['node_modules', '\\.test\\.tsx?$', '/\\+types/'] },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { extensions: ['.ts', '.tsx', '.mjs', '.js', '.json'] },
  },
}
