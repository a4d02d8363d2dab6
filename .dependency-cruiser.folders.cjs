/** Folders are no cycle either: what is below can be read without what is above. Tests may reach up and are left out. */
module.exports = {
  forbidden: [
    {
      name: 'no-folder-cycles',
      severity: 'error',
      scope: 'folder',
      from: { path: '^src/' },
      to: { circular: true },
    },
  ],
  options: {
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '\\.generated\\.|\\.test\\.tsx?$' },
  },
};
