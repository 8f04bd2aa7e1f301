/** Rooms of the core from the ground up: each may use itself and those before it. */
export default {
  forbidden: [
    { name: 'no-circle', severity: 'error', from: {}, to: { circular: true } },
    {
      severity: 'error',
      scope: 'folder',
      from: { path: '^core/src' },
      to: { circular: true },
    },
    {
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: '^core/src' },
      to: { path: '^(server|web|e2e|scripts)/' },
    },
    { name: 'web-and-server-apart', severity: 'error', from: { path: '^web/' }, to: { path: '^server/' } },
    { name: 'server-and-web-apart', severity: 'error', from: { path: '^server/' }, to: { path: '^web/' } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'types', 'default'] },
  },
};
