import { installChromium, installPackages, installPeers, run } from './bootstrap.mjs';

installPackages();
installChromium();
const missing = installPeers();
run('npm', ['run', '--silent', 'typecheck']);
run('npm', ['run', '--silent', 'lint']);
run('npm', ['run', '--silent', 'demo']);
run('npm', ['run', '--silent', 'test:unit']);
run('npm', ['run', '--silent', 'build']);
run('npm', ['run', '--silent', 'test:e2e']);
if (missing.length > 0) {
  console.error(
    `not run: the comparisons with independent solvers, for want of Debian's ${missing.join(', ')}.`,
  );
  if (process.env.CI) process.exit(1);
}
