/** Well-kept pure packages that the core may use, behind its own names. */
const PURE = '(@dagrejs/dagre|@sinclair/typebox|@noble/hashes|dequal|fast-json-stable-stringify|fractional-indexing|papaparse|pure-rand|reselect|@stdlib)';
/** Schemas are faces of their own: who only wants the types of a room must not load them. */
const SCHEMAS = '^src/core/(vocabulary/schema|meter/schema|kit/schema/[a-z]+)\\.ts$';

/** Arrows point downwards only: ui → store → workers → core. Rooms of the core meet at their public faces. */
module.exports = {
  forbidden: [
    { name: 'no-circular', severity: 'error', from: { path: '^src/' }, to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } } },
    { name: 'core-is-pure', severity: 'error', from: { path: '^src/core/' }, to: { pathNot: ['^src/core/', `node_modules/(@types/)?${PURE}`] } },
    {
      name: 'rooms-meet-at-their-faces',
      severity: 'error',
      from: { path: '^src/core/([^/]+)/' },
      to: { path: '^src/core/[^/]+/.+', pathNot: ['^src/core/$1/', '^src/core/[^/]+/index\\.ts$', SCHEMAS] },
    },
    {
      name: 'faces-from-outside',
      severity: 'error',
      from: { path: '^src/(ui|store|workers|stand-in|app)/' },
      to: { path: '^src/core/', pathNot: ['^src/core/[^/]+/index\\.ts$', SCHEMAS] },
    },
    { name: 'stand-in-only-core', severity: 'error', from: { path: '^src/stand-in/' }, to: { pathNot: ['^src/(core|stand-in)/'] } },
    { name: 'workers-below-store', severity: 'error', from: { path: '^src/workers/' }, to: { path: '^src/(store|ui|app)/|node_modules/(react|antd|next)/' } },
    { name: 'store-below-ui', severity: 'error', from: { path: '^src/store/' }, to: { path: '^src/(ui|app)/|node_modules/(react|antd|next)/' } },
    { name: 'ui-below-app', severity: 'error', from: { path: '^src/ui/' }, to: { path: '^src/(app|workers|stand-in)/' } },
    { name: 'ajv-only-at-build', severity: 'error', from: { path: '^src/' }, to: { path: 'node_modules/ajv' } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'browser', 'default', 'types'] },
  },
};
