/**
 * npm test: installs what is missing, then checks generated files, types, lint, rooms and formatting, and runs unit and
 * browser tests. Prints last a line `N passed, N failed`. With `--unit` the browser tests are left out.
 */
import { spawn, spawnSync } from 'node:child_process';
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

/** Runs one check; what it has to say is shown when it is done. */
function check(name, command, args) {
  const started = Date.now();
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] });
    let said = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (data) => (said += data));
    child.on('close', (code) => {
      const fine = code === 0;
      if (said.trim() && !fine) console.log(said);
      console.log(`${fine ? 'ok    ' : 'FAILED'} ${name} (${((Date.now() - started) / 1000).toFixed(1)} s)`);
      if (fine) passed++;
      else failed++;
      resolve();
    });
  });
}

/** Runs checks, as many at a time as there are cores: each of them keeps to one. */
async function checks(list) {
  const left = [...list];
  const lane = async () => {
    for (let next = left.shift(); next; next = left.shift()) await check(...next);
  };
  await Promise.all(os.cpus().map(lane));
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

/** Installs what browser tests need; gives whether it is there. */
const setUpBrowser = () =>
  new Promise((resolve) => {
    const child = spawn(process.execPath, ['scripts/setup.mjs', '--browser', '--tools'], {
      cwd: root,
      stdio: 'inherit',
    });
    child.on('close', (code) => resolve(code === 0));
  });

if (run(process.execPath, ['scripts/setup.mjs'])) {
  // Packages of the system come while what needs none of them is checked.
  const browser = unitOnly ? null : setUpBrowser();
  await checks([
    ['lint', bin('eslint'), ['.']],
    ['types', bin('tsc'), ['-p', 'tsconfig.json']],
    ['format', bin('prettier'), ['--check', '--log-level', 'warn', '.']],
    ['types of the pure rooms, without a DOM', bin('tsc'), ['-p', 'tsconfig.core.json']],
    [
      'rooms: arrows go down only',
      bin('depcruise'),
      ['--config', '.dependency-cruiser.cjs', 'src', 'bin', 'demo', 'scripts'],
    ],
    ['folders: no cycles', bin('depcruise'), ['--config', '.dependency-cruiser.folders.cjs', 'src']],
    ['nothing unused', bin('knip'), []],
    ['generated files are up to date', bin('tsx'), ['scripts/generate.ts', '--check']],
    ['the demo show is up to date', bin('tsx'), ['demo/make.ts', '--check']],
  ]);
  jest('unit', [`--maxWorkers=${os.cpus().length}`]);
  if (browser && !(await browser)) failed++;
  else if (browser) {
    await check('build', bin('vite'), ['build', '--logLevel', 'warn']);
    await check('what a browser loads first stays small', bin('size-limit'), []);
    // Two files side by side take four fifths of the time, as pictures are worked out by all processors as it is, and hands in tests become so
    // slow that what counts as one action of theirs is two.
    jest('browser', ['--runInBand']);
  }
} else failed++;

console.log(`${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);
