// What is checked, on a fresh clone too. The last line is the sum: N passed, N failed.
// `--all` adds the tests with the tag `long`, which play whole jobs or go through every case of something.
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { ensureNodeModules, ensurePrograms, projectRoot, runPackages, testPackages } from './setup.mjs';

const { all } = parseArgs({ options: { all: { type: 'boolean', default: false } } }).values;

ensurePrograms([...runPackages, ...testPackages]);
ensureNodeModules();

const results = join(projectRoot, 'test-results');
rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });
const bin = (name) => join(projectRoot, 'node_modules/.bin', name);

const readVitest = (file) => {
  const report = JSON.parse(readFileSync(file, 'utf8'));
  // A file that could not even be loaded holds no failed test, and is a failure all the same.
  const broken = report.testResults.filter((each) => each.status === 'failed' && !each.assertionResults.some((test) => test.status === 'failed')).length;
  return { passed: report.numPassedTests, failed: report.numFailedTests + broken };
};
const readPlaywright = (file) => {
  const { stats, errors } = JSON.parse(readFileSync(file, 'utf8'));
  return { passed: stats.expected, failed: stats.unexpected + stats.flaky + errors.length };
};
const vitest = (project) => ({
  args: ['run', '--project', project, '--reporter=default', '--reporter=json', `--outputFile.json=${join(results, `${project}.json`)}`, ...(all ? [] : ['--tagsFilter=!long'])],
  command: bin('vitest'),
  report: { file: join(results, `${project}.json`), read: readVitest },
});

/** One row after the other; the suites of a row run at once. */
const suites = [
  [
    // Checks the types of all files, those of the pages among them.
    { name: 'types', command: bin('astro'), args: ['check', '--minimumSeverity', 'hint'] },
    { name: 'lint', command: bin('eslint'), args: ['.'] },
    { name: 'unit', ...vitest('unit') },
    // Builds and seeds first, which takes as long as all of the above and keeps a single core busy.
    { name: 'server', ...vitest('server') },
  ],
  // Keeps both cores busy: beside another suite it would only wait for it.
  [{ name: 'browser', command: bin('playwright'), args: ['test', ...(all ? [] : ['--grep-invert', '@long'])], report: { file: join(results, 'browser.json'), read: readPlaywright } }],
];

/** Runs a suite and answers its output, so that those of a row do not mix. */
function run({ command, args }) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { cwd: projectRoot, stdio: ['ignore', 'pipe', 'pipe'], env: { ...process.env, ASTRO_TELEMETRY_DISABLED: '1' } });
    const output = [];
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (bytes) => output.push(bytes));
    child.once('error', reject);
    child.once('close', (status) => resolve({ status, output: Buffer.concat(output) }));
  });
}

const totals = { passed: 0, failed: 0 };
for (const row of suites) {
  process.stdout.write(`\nRunning ${row.map(({ name }) => name).join(', ')}…\n`);
  await Promise.all(
    row.map(async (suite) => {
      const started = Date.now();
      const { status, output } = await run(suite);
      const { name, report } = suite;
      const counted = report && existsSync(report.file) ? report.read(report.file) : { passed: status === 0 ? 1 : 0, failed: status === 0 ? 0 : 1 };
      // A runner that ends badly without a failed test has failed itself.
      if (status !== 0 && counted.failed === 0) counted.failed = 1;
      totals.passed += counted.passed;
      totals.failed += counted.failed;
      process.stdout.write(`\n--- ${name}\n${output}`);
      process.stdout.write(`--- ${name}: ${counted.passed} passed, ${counted.failed} failed (${Math.round((Date.now() - started) / 1000)} s)\n`);
    }),
  );
}
process.stdout.write(`\n${totals.passed} passed, ${totals.failed} failed\n`);
process.exit(totals.failed === 0 ? 0 : 1);
