import { hem } from './program.ts';
import { writeFailure } from './replaceFile.ts';

/** Whoever read the result has had enough (a pipe that was closed): no failure. Where it could not be written, that is one. */
function stdoutFailed(error: NodeJS.ErrnoException): void {
  if (error.code === 'EPIPE') return;
  process.stderr.write(`${writeFailure('The result', error).message}\n`);
  process.exitCode = 2;
}

process.stdout.on('error', stdoutFailed);
const code = await hem(process.argv.slice(2), {
  out: (text) => process.stdout.write(text),
  err: (text) => process.stderr.write(text),
});
// What was printed may have failed by now, which is the worse.
process.exitCode ||= code;
