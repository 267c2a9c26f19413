/** Arrows point downwards only: ui → store → workers → core. */
module.exports = {
  forbidden: [
    { name: 'no-circular', severity: 'error', from: { path: '^src/' }, to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } } },
    { name: 'core-is-pure', severity: 'error', from: { path: '^src/core/' }, to: { pathNot: ['^src/core/'] } },
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
