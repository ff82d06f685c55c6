// Reads what the test runner wrote down: `count FILE` says how many passed and failed, `longest FILE …` which files and tests took longest.
import { readFileSync } from 'node:fs';
import { relative } from 'node:path';

const [what, ...files] = process.argv.slice(2);
const SHOWN = 12;

/** A report; one that is missing is a suite that failed once. */
function read(file) {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    return { numPassedTests: 0, numFailedTests: 1, testResults: [] };
  }
}

const reports = files.map(read);
if (what === 'count')
  for (const { numPassedTests, numFailedTests } of reports) console.log(`${numPassedTests} ${numFailedTests}`);
else {
  const results = reports.flatMap(({ testResults }) => testResults);
  const seconds = (ms) => `${(ms / 1000).toFixed(1)} s`.padStart(8);
  const list = (rows) => {
    for (const [ms, words] of rows.sort((a, b) => b[0] - a[0]).slice(0, SHOWN)) console.log(`${seconds(ms)}  ${words}`);
  };
  console.log('Files:');
  list(results.map(({ name, startTime, endTime }) => [endTime - startTime, relative('.', name)]));
  console.log('Tests:');
  list(
    results.flatMap(({ name, assertionResults }) =>
      assertionResults.map(({ duration, title }) => [duration ?? 0, `${relative('.', name)}: ${title}`]),
    ),
  );
}
