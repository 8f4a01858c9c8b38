/** Imports point one way (see CONTRIBUTING.md): a layer may import itself and what is below it. */
const LAYERS = [
  'wasm',
  'project',
  'law',
  'curve',
  'shape',
  'rig',
  'drive',
  'file',
  'evaluate',
  'edit',
  'reading',
  'find',
  'shot',
  'interchange',
];
const above = {
  wasm: LAYERS.slice(1),
  project: LAYERS.slice(2),
  law: LAYERS.slice(3),
  curve: ['shape', 'rig', 'drive', 'file', 'evaluate', 'edit', 'reading', 'find', 'shot', 'interchange'],
  shape: ['curve', 'rig', 'drive', 'file', 'evaluate', 'edit', 'reading', 'find', 'shot', 'interchange'],
  rig: ['curve', 'drive', 'file', 'evaluate', 'edit', 'reading', 'find', 'shot', 'interchange'],
  drive: ['file', 'evaluate', 'edit', 'reading', 'find', 'shot', 'interchange'],
  file: ['evaluate', 'edit', 'reading', 'find', 'shot', 'interchange'],
  evaluate: ['edit', 'reading', 'find', 'shot', 'interchange'],
  edit: ['reading', 'find', 'shot', 'interchange'],
  reading: ['find', 'shot', 'interchange'],
  find: ['shot', 'interchange'],
  shot: ['interchange'],
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
