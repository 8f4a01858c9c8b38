/** Imports point one way (see CONTRIBUTING.md): a layer may import itself and what is below it. */
const layers = [
  'project',
  'law',
  'curve',
  'shape',
  'rig',
  'drive',
  'evaluate',
  'edit',
  'reading',
  'find',
  'interchange',
];
const above = {
  project: layers.filter((l) => l !== 'project'),
  law: ['curve', 'shape', 'rig', 'drive', 'evaluate', 'edit', 'reading', 'find', 'interchange'],
  curve: ['shape', 'rig', 'drive', 'evaluate', 'edit', 'reading', 'find', 'interchange'],
  shape: ['curve', 'rig', 'drive', 'evaluate', 'edit', 'reading', 'find', 'interchange'],
  rig: ['curve', 'drive', 'evaluate', 'edit', 'reading', 'find', 'interchange'],
  drive: ['rig', 'evaluate', 'edit', 'reading', 'find', 'interchange'],
  evaluate: ['edit', 'reading', 'find', 'interchange'],
  edit: ['reading', 'interchange', 'find'],
  reading: ['interchange', 'find'],
  interchange: ['find'],
};

module.exports = {
  forbidden: [
    { name: 'no-circular', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'no-circle-between-folders',
      severity: 'error',
      scope: 'folder',
      from: {},
      to: { circular: true },
    },
    ...Object.entries(above).map(([layer, upper]) => ({
      name: `core-${layer}-imports-upwards`,
      severity: 'error',
      from: { path: `^core/src/${layer}/`, pathNot: '\\.test\\.ts$' },
      to: { path: `^core/src/(${upper.join('|')})/` },
    })),
    {
      name: 'core-knows-no-shell',
      severity: 'error',
      from: { path: '^core/src', pathNot: '\\.test\\.ts$' },
      to: {
        path: '^(studio|cli|server)/|node_modules/(three|@angular|@ngrx|express|rxjs)/|^(node:)?(fs|path|os|http)$',
      },
    },
    {
      name: 'shells-know-each-other-not',
      severity: 'error',
      from: { path: '^(studio|cli|server)/' },
      to: { path: '^(studio|cli|server)/', pathNot: ['^$1/'] },
    },
    {
      name: 'not-into-core',
      comment: 'Shells import @kaizen/core, not files of it.',
      severity: 'error',
      from: { path: '^(studio|cli|server)/' },
      to: { path: '^core/src/(?!index\\.ts$)' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    // Tests sit beside what they test and may look anywhere.
    exclude: { path: ['\\.test\\.ts$', '/testing/'] },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'default'],
      extensions: ['.ts', '.mjs', '.js', '.json'],
    },
  },
};
