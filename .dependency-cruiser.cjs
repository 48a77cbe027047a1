/** What may lean on what. The floors of `core/` are its folders: one leads to the next, none back. */
module.exports = {
  forbidden: [
    {
      name: 'no-circle-of-files',
      severity: 'error',
      from: { path: '^(core|contract|snapshot|browser|server|web|cli)/src' },
      to: { circular: true, pathNot: 'node_modules' },
    },
    {
      name: 'no-circle-of-floors',
      comment: 'A floor of the core leans on those under it alone.',
      scope: 'folder',
      severity: 'error',
      from: { path: '^core/src/' },
      to: { circular: true },
    },
    {
      name: 'core-apart',
      comment: 'The core has no interface and no server in it.',
      severity: 'error',
      from: { path: '^core/src', pathNot: 'spec\\.ts$' },
      to: { path: '^(web|server|contract|e2e)/|node_modules/(@angular|primeng|rxjs|express|better-sqlite3)/' },
    },
    {
      name: 'core-by-its-door',
      comment: 'The others take the core by its index.',
      severity: 'error',
      from: { path: '^(web|server|contract|browser|cli)/src' },
      to: { path: '^core/(src|dist)/(?!index)' },
    },
    { name: 'web-and-server-apart', severity: 'error', from: { path: '^web/src' }, to: { path: '^(server|browser)/' } },
    { name: 'server-and-web-apart', severity: 'error', from: { path: '^server/src' }, to: { path: '^web/' } },
    {
      name: 'found',
      comment: 'What is not found no rule here could hold.',
      severity: 'error',
      from: {},
      to: { couldNotResolve: true },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules|/dist/' },
    exclude: { path: 'node_modules/@types|spec\\.ts$|core/src/testing|core/src/index\\.ts' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.floors.json' },
    // Packages of others are found as the compiler finds them, ours by the paths of that file, built or not.
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['types', 'import', 'default'] },
  },
};
