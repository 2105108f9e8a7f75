// Imports run downwards only: a part of src/core may use what stands after it here. Checks stand above the painters,
// since total ink is read off the plates.
const core = [
  'output',
  'check',
  'render',
  'scene',
  'input',
  'edit',
  'derive',
  'colour',
  'pictures',
  'text',
  'shapes',
  'file',
  'model',
  'geometry',
  'units',
];
const outer = ['app', 'shelf', 'bench', 'workers', 'store', 'ui', 'env'];
const upward = core.flatMap((name, i) =>
  i === 0
    ? []
    : [
        {
          name: `core-${name}-looks-down`,
          severity: 'error',
          from: { path: `^src/core/${name}/` },
          to: { path: `^src/core/(${core.slice(0, i).join('|')})/` },
        },
      ],
);
module.exports = {
  forbidden: [
    ...upward,
    {
      name: 'scene-knows-no-commands',
      severity: 'error',
      from: { path: '^src/core/(scene|render)/' },
      to: { path: '^src/core/(edit|input)/' },
    },
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^src/core' },
      to: {
        path: `^src/(${outer.join('|')})/|^cli/|node_modules/(react|react-dom|next|radix-ui|@radix-ui|dexie|zustand|comlink|@napi-rs)/`,
      },
    },
    {
      name: 'store-below-interface',
      severity: 'error',
      from: { path: '^src/store' },
      to: { path: '^src/(ui|app|shelf|bench)/' },
    },
    {
      name: 'workers-below-interface',
      severity: 'error',
      from: { path: '^src/workers' },
      to: { path: '^src/(ui|app|shelf|bench)/' },
    },
    {
      name: 'node-env-only-in-cli',
      severity: 'error',
      from: { path: '^src', pathNot: '^src/env/node' },
      to: { path: '^src/env/node' },
    },
    { name: 'no-circular', severity: 'error', from: {}, to: { circular: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
    },
  },
};
