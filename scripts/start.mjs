import { installPackages, run } from './bootstrap.mjs';

installPackages();
run('npm', ['run', '--silent', 'build']);
run('npm', ['run', '--silent', 'serve']);
