// Plain Node, no dependency: it runs before anything is installed.
import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = dirname(dirname(fileURLToPath(import.meta.url)));
export const CHROMIUM = '/usr/bin/chromium';

/** Runs a command in the project and ends the process with its code when it fails. */
export function run(command, args) {
  const { status, error } = spawnSync(command, args, { cwd: root, stdio: 'inherit' });
  if (error) console.error(error.message);
  if (status !== 0) process.exit(status ?? 1);
}

/** Installs the packages of the lock file, unless that has been done already. */
export function installPackages() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19)) {
    console.error(`Node ${process.versions.node} is too old: Blunt Hem needs Node 20.19 or newer.`);
    process.exit(1);
  }
  const lock = readFileSync(join(root, 'package-lock.json'), 'utf8');
  const mark = join(root, 'node_modules', '.installed-lock');
  if (existsSync(mark) && readFileSync(mark, 'utf8') === lock) return;
  console.log('Installing packages…');
  run('npm', ['ci', '--no-fund', '--no-audit', '--loglevel=error']);
  writeFileSync(mark, lock);
}

/** Installs Chromium from Debian's packages where that is allowed; otherwise says what to do. */
export function installChromium() {
  if (existsSync(CHROMIUM)) return;
  if (process.getuid?.() !== 0 || !existsSync('/usr/bin/apt-get')) {
    console.error(
      `The end-to-end tests need Chromium at ${CHROMIUM}: install Debian's package “chromium” as root.`,
    );
    process.exit(1);
  }
  console.log('Installing Chromium…');
  const options = {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
  };
  execFileSync('apt-get', ['-qq', 'update'], options);
  execFileSync('apt-get', ['-qq', '-y', 'install', '--no-install-recommends', 'chromium'], options);
}
