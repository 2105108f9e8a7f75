// Imports run downwards only: a part of src/core may use what stands after it here. Checks stand above the painters,
// since total ink is read off the plates.
const core = [
  'output',
  'check',
  'render',
  'scene',
  'input',
  'ready',
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
// Within the bench as well: the tools know the state and not the commands; commands, keys and clipboard stand above
// them; places of the interface use what stands below. What lies in src/bench itself puts the places together.
const bench = [
  'finder',
  'details',
  'ticket',
  'rack',
  'canvas',
  'tray',
  'pile',
  'handOver',
  'pictures',
  'ramps',
  'commands',
  'tools',
  'view',
  'session',
];
const below = (root, name, order) =>
  order.flatMap((part, i) =>
    i === 0
      ? []
      : [
          {
            name: `${name}-${part}-looks-down`,
            severity: 'error',
            from: { path: `^${root}/${part}/` },
            to: { path: `^${root}/(${order.slice(0, i).join('|')})/` },
          },
        ],
  );
const upward = [...below('src/core', 'core', core), ...below('src/bench', 'bench', bench)];
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
      name: 'bench-places-know-no-whole',
      severity: 'error',
      from: { path: '^src/bench/[^/]+/' },
      to: { path: '^src/bench/[^/]+$' },
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
