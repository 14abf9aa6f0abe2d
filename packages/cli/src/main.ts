import { HemError } from '@blunt-hem/core/errors';
import { CallError, parseCall, USAGE } from './arguments.ts';
import { run } from './commands.ts';

try {
  const result = await run(parseCall(process.argv.slice(2)));
  process.stdout.write(`${JSON.stringify(result, null, 2)}\n`);
} catch (error) {
  if (error instanceof CallError) {
    process.stderr.write(`${error.message}\n${USAGE}\n`);
    process.exitCode = 1;
  } else if (error instanceof HemError) {
    process.stderr.write(`${error.message}\n`);
    process.exitCode = 2;
  } else throw error;
}
