import { HemError } from '@blunt-hem/core/errors';
import { FORMATS, formatsInWords } from '@blunt-hem/core/formats/formats';
import { Command, CommanderError } from 'commander';
import { COMMANDS } from './commands/index.ts';
import { refuseSameFile } from './files.ts';
import { overOption } from './options.ts';
import { writeFailure } from './replaceFile.ts';

/**
 * The command: prints a result as JSON and sets the exit code. 0; 1 for a wrong call; 2 for bad input, with one sentence on standard
 * error.
 */
export async function hem(words: readonly string[]): Promise<void> {
  process.stdout.on('error', stdoutFailed);
  try {
    await program((result) => process.stdout.write(`${JSON.stringify(result, null, 2)}\n`)).parseAsync(
      [...words],
      {
        from: 'user',
      },
    );
  } catch (error) {
    if (error instanceof CommanderError) process.exitCode = error.exitCode === 0 ? 0 : 1;
    else if (error instanceof HemError) {
      process.stderr.write(`${error.message}\n`);
      // Parameters are checked once more where they are used.
      process.exitCode = error.code === 'wrong-parameters' ? 1 : 2;
    } else throw error;
  }
}

/** Whoever read the result has had enough (a pipe that was closed): no failure. Where it could not be written, that is one. */
function stdoutFailed(error: NodeJS.ErrnoException): void {
  if (error.code !== 'EPIPE') {
    process.stderr.write(`${writeFailure('The result', error).message}\n`);
    process.exitCode = 2;
  }
}

/** The program with every command; nothing is loaded that the called one does not need. */
export function program(print: (result: object) => void): Command {
  const root = new Command('hem')
    .description(
      'Cut, unfold, measure and repair models without a screen. Results are JSON on standard output.',
    )
    .showHelpAfterError()
    .exitOverride();
  for (const { name, summary, shape, load } of COMMANDS) {
    const command = root
      .command(name)
      .description(summary)
      .argument('<model>', `an ${formatsInWords(FORMATS, 'or')} file`)
      .exitOverride();
    shape(command);
    const writes = command.options.some(({ long }) => long === '--out');
    if (writes) command.addOption(overOption());
    command.action(async (input: string, options: { readonly out?: string; readonly over?: true }) => {
      if (writes && options.out && !options.over) await refuseSameFile(input, options.out);
      const { run } = await load();
      print(await run(input, options as never));
    });
  }
  return root;
}
