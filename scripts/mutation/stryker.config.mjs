export default {
  testRunner: 'vitest',
  plugins: ['@stryker-mutator/vitest-runner'],
  vitest: { configFile: 'scripts/mutation/vitest.config.ts', related: true },
  coverageAnalysis: 'perTest',
  mutate: [...process.env.MUTATED.split(';'), '!**/*.test.ts'],
  reporters: ['progress-append-only', 'clear-text', 'json'],
  jsonReporter: { fileName: '.cache/mutation/report.json' },
  concurrency: 1,
  // What is only run while a module is loaded would take a run of all tests each.
  ignoreStatic: true,
  tempDirName: '.cache/mutation/sandbox',
  timeoutMS: 10_000,
  clearTextReporter: { allowColor: false, logTests: false, reportTests: false },
};
