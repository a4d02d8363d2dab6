/**
 * npm test: installs what is missing, then checks generated files, types, lint, rooms and formatting, and runs unit and
 * browser tests. Prints last a line `N passed, N failed`. With `--unit` the browser tests are left out.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';

const root = path.resolve(import.meta.dirname, '..');
const unitOnly = process.argv.includes('--unit');
const bin = (name) => path.join(root, 'node_modules/.bin', name);
let passed = 0;
let failed = 0;

function run(command, args, env = {}) {
  return (
    spawnSync(command, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } }).status === 0
  );
}

function step(name, command, args) {
  const started = Date.now();
  const fine = run(command, args);
  console.log(`${fine ? 'ok    ' : 'FAILED'} ${name} (${((Date.now() - started) / 1000).toFixed(1)} s)`);
  if (fine) passed++;
  else failed++;
}

function jest(project, extra = []) {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'pyrvel-test-'));
  const report = path.join(folder, 'report.json');
  run(process.execPath, [
    '--experimental-vm-modules',
    '--no-warnings',
    path.join(root, 'node_modules/jest/bin/jest.js'),
    '--selectProjects',
    project,
    '--json',
    // A test that failed may leave a socket open: the rest must not wait for it.
    '--forceExit',
    `--outputFile=${report}`,
    ...extra,
  ]);
  if (existsSync(report)) {
    const result = JSON.parse(readFileSync(report, 'utf8'));
    passed += result.numPassedTests;
    // A file that could not even be loaded has no tests to fail; it counts as one.
    failed += result.numFailedTests + result.numRuntimeErrorTestSuites;
  } else failed++;
  rmSync(folder, { recursive: true, force: true });
}

const setup = ['scripts/setup.mjs', ...(unitOnly ? [] : ['--browser', '--tools'])];
if (run(process.execPath, setup)) {
  step('generated files are up to date', bin('tsx'), ['scripts/generate.ts', '--check']);
  step('the demo show is up to date', bin('tsx'), ['demo/make.ts', '--check']);
  step('types of the pure rooms, without a DOM', bin('tsc'), ['-p', 'tsconfig.core.json']);
  step('types', bin('tsc'), ['-p', 'tsconfig.json']);
  step('lint', bin('eslint'), ['.']);
  step('rooms: arrows go down only', bin('depcruise'), [
    '--config',
    '.dependency-cruiser.cjs',
    'src',
    'bin',
    'demo',
    'scripts',
  ]);
  step('folders: no cycles', bin('depcruise'), ['--config', '.dependency-cruiser.folders.cjs', 'src']);
  step('nothing unused', bin('knip'), []);
  step('format', bin('prettier'), ['--check', '--log-level', 'warn', '.']);
  jest('unit');
  if (!unitOnly) {
    step('build', bin('vite'), ['build', '--logLevel', 'warn']);
    step('what a browser loads first stays small', bin('size-limit'), []);
    jest('browser', ['--runInBand']);
  }
} else failed++;

console.log(`${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);
