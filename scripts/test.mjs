import { installChromium, installPackages, run } from './bootstrap.mjs';

installPackages();
installChromium();
run('npm', ['run', '--silent', 'typecheck']);
run('npm', ['run', '--silent', 'lint']);
run('npm', ['run', '--silent', 'demo']);
run('npm', ['run', '--silent', 'test:unit']);
run('npm', ['run', '--silent', 'build']);
run('npm', ['run', '--silent', 'test:e2e']);
