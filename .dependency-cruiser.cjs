/** The house's one-way streets: views -> ui, contract; server -> services -> data; all -> contract -> core; core -> nothing. */
module.exports = {
  forbidden: [
    {
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: '^src/core', pathNot: '\\.test\\.ts$' },
      to: { path: '^src/(?!core)' },
    },
    {
      name: 'contract-on-core-alone',
      severity: 'error',
      comment: 'What travels is known to both ends, and knows neither.',
      from: { path: '^src/contract', pathNot: '\\.test\\.ts$' },
      to: { path: '^src/(?!core|contract)' },
    },
    {
      name: 'endpoints-for-the-server',
      severity: 'error',
      comment: 'A page knows endpoints by their types alone; the table of permissions is plain data.',
      from: { path: '^src/(views|ui|workers|services|data)' },
      to: { path: '^src/contract/(?!(index|permissions)\\.ts)' },
    },
    {
      name: 'core-has-no-platform',
      severity: 'error',
      from: { path: '^src/core', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'core-few-packages',
      severity: 'error',
      from: { path: '^src/core', pathNot: '(\\.test|random-models)\\.ts$' },
      to: {
        path: 'node_modules',
        pathNot: 'node_modules/(@types/)?(earcut|decimal\\.js|yup|@bpmn-io/lezer-feel|lezer-feel|@lezer)',
      },
    },
    {
      name: 'data-below-services',
      severity: 'error',
      from: { path: '^src/data' },
      to: { path: '^src/(services|pages|views|ui|workers|i18n)' },
    },
    {
      name: 'services-below-pages',
      severity: 'error',
      from: { path: '^src/services' },
      to: { path: '^src/(pages|server|views|ui|workers)' },
    },
    {
      name: 'views-stay-in-the-page',
      severity: 'error',
      from: { path: '^src/(views|ui|workers)', pathNot: '\\.astro$' },
      to: { path: '^src/(services|data|pages|server)' },
    },
    {
      name: 'ui-knows-no-view',
      severity: 'error',
      from: { path: '^src/ui' },
      to: { path: '^src/(views|core|i18n)' },
    },
    {
      name: 'pages-through-services',
      severity: 'error',
      from: { path: '^src/(pages|server|middleware)', pathNot: '\\.test\\.ts$' },
      to: { path: '^src/data' },
    },
    {
      name: 'by-the-door',
      severity: 'error',
      comment: 'A part of the core is entered by its index.ts.',
      from: { path: '^src/core/([^/]+)/' },
      to: { path: '^src/core/([^/]+)/(?!index\\.ts)', pathNot: '^src/core/$1/' },
    },
    {
      name: 'no-circles',
      severity: 'error',
      from: {},
      comment: 'Types count: what two files share has a file of its own.',
      to: { circular: true },
    },
    {
      name: 'not-by-the-own-door',
      severity: 'error',
      comment: 'Inside a part, files import each other; the door is for others.',
      from: { path: '^src/(core/[^/]+|i18n|ui|data/migrations)/', pathNot: '(\\.test\\.tsx?|/index\\.ts)$' },
      to: { path: '^src/$1/index\\.ts$' },
    },
    {
      name: 'no-orphans',
      severity: 'error',
      from: { orphan: true, pathNot: '(\\.d\\.ts|\\.test\\.tsx?|\\.module\\.css|\\.css|\\.astro)$' },
      to: {},
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'types', 'default'] },
  },
};
