/** Installs what is missing: packages, with --browser Chromium and its driver, with --tools what tests check with: ffmpeg, redis-server and faketime. Plain JavaScript: it runs before anything is installed. */
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { createHash } from 'node:crypto';

const root = path.resolve(import.meta.dirname, '..');
const run = (command, args) =>
  spawnSync(command, args, { cwd: root, stdio: ['ignore', 'inherit', 'inherit'] }).status === 0;

const lockHash = () =>
  createHash('sha256')
    .update(readFileSync(path.join(root, 'package-lock.json')))
    .digest('hex');
const mark = path.join(root, 'node_modules/.pyrvel-installed');
if (!existsSync(mark) || readFileSync(mark, 'utf8') !== lockHash()) {
  console.log('Installing packages…');
  // Not `npm ci`: it refuses a lock file in which packages for other platforms, which a registry may not carry, are missing.
  if (!run('npm', ['install', '--no-audit', '--no-fund', '--loglevel=error'])) {
    console.error(
      'The packages could not be installed. Check the connection to the npm registry and try again.',
    );
    process.exit(1);
  }
  writeFileSync(mark, lockHash());
}

/** What of Debian is wanted, and the program each package brings; Mesa brings none. */
const wanted = {
  ...(process.argv.includes('--browser') && {
    chromium: '/usr/bin/chromium',
    'chromium-driver': '/usr/bin/chromedriver',
  }),
  ...(process.argv.includes('--tools') && {
    ffmpeg: '/usr/bin/ffmpeg',
    'redis-server': '/usr/bin/redis-server',
    // For the long form only.
    ...(process.env.PYRVEL_LONG === '1' && { faketime: '/usr/bin/faketime' }),
  }),
};
const missing = Object.keys(wanted).filter((name) => !existsSync(wanted[name]));
if (missing.length) {
  console.log(`Installing ${missing.join(', ')}…`);
  // Mesa draws two to three times quicker than what Chromium brings along.
  const drawing = missing.includes('chromium') ? ['libgl1-mesa-dri', 'libegl1'] : [];
  const done =
    run('apt-get', ['update', '-qq']) &&
    run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...missing, ...drawing]);
  if (!done) {
    console.error(`The packages ${missing.join(', ')} could not be installed. Install them and try again.`);
    process.exit(1);
  }
}
