/**
 * Prints how many tests passed and failed, from the reports of both runners; fails where a report is missing. What
 * passed only when it was tried again is counted as passed, and told.
 */
import { readFileSync } from 'node:fs';

const [unitsFile = '', browserFile = ''] = process.argv.slice(2);
const read = (file) => {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    return null;
  }
};
const [units, browser] = [read(unitsFile), read(browserFile)];
const passed = (units?.numPassedTests ?? 0) + (browser?.stats.expected ?? 0) + (browser?.stats.flaky ?? 0);
const failed =
  (units ? units.numFailedTests + units.numFailedTestSuites : 1) +
  (browser ? browser.stats.unexpected + browser.errors.length : 1);
const unsteady = browser?.stats.flaky ?? 0;
console.log(
  `${passed} passed${unsteady > 0 ? ` (${unsteady} only when tried again)` : ''}, ${failed} failed`,
);
process.exit(failed > 0 ? 1 : 0);
