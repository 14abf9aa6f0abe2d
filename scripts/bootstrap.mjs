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
  run('npm', ['ci', '--include=dev', '--no-fund', '--no-audit', '--loglevel=error']);
  writeFileSync(mark, lock);
}

const mayInstall = () => process.getuid?.() === 0 && existsSync('/usr/bin/apt-get');

function installDebian(...packages) {
  console.log(`Installing ${packages.join(', ')}…`);
  const options = {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
  };
  execFileSync('apt-get', ['-qq', 'update'], options);
  execFileSync('apt-get', ['-qq', '-y', 'install', '--no-install-recommends', ...packages], options);
}

/** Installs Chromium from Debian's packages where that is allowed; otherwise says what to do. */
export function installChromium() {
  if (existsSync(CHROMIUM)) return;
  if (!mayInstall()) {
    console.error(
      `The end-to-end tests need Chromium at ${CHROMIUM}: install Debian's package “chromium” as root.`,
    );
    process.exit(1);
  }
  installDebian('chromium');
}

const PEERS = [
  ['g++', '/usr/bin/g++'],
  ['libcgal-dev', '/usr/include/CGAL/Surface_mesh_parameterization'],
  ['libeigen3-dev', '/usr/include/eigen3'],
  ['python3-scipy', '/usr/lib/python3/dist-packages/scipy'],
];

/**
 * Installs the independent solvers that the reference tests compare with, where that is allowed.
 *
 * @returns the packages that are missing all the same
 */
export function installPeers() {
  const missing = () => PEERS.filter(([, path]) => !existsSync(path)).map(([name]) => name);
  if (missing().length > 0 && mayInstall()) installDebian(...missing());
  return missing();
}
