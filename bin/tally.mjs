// Adds up what the test runners report and prints the one closing line; a report that is missing counts as a failure.
import { readFileSync } from "node:fs";

const [unitFile, browserFile, passedSteps, failedSteps] = process.argv.slice(2);
let passed = Number(passedSteps);
let failed = Number(failedSteps);

function read(file) {
  try {
    return JSON.parse(readFileSync(file, "utf8"));
  } catch {
    return undefined;
  }
}

const unit = read(unitFile);
if (unit) {
  passed += unit.numPassedTests;
  failed += unit.numFailedTests + (unit.numFailedTestSuites > 0 && unit.numFailedTests === 0 ? unit.numFailedTestSuites : 0);
} else failed += 1;

const browser = read(browserFile);
if (browser) {
  passed += browser.stats.expected + browser.stats.flaky;
  failed += browser.stats.unexpected + browser.errors.length;
} else failed += 1;

console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
