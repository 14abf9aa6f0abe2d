import { HemError } from '@blunt-hem/core/errors';
import { FORMATS, formatsInWords } from '@blunt-hem/core/formats/formats';
import { Command, CommanderError } from 'commander';
import { COMMANDS } from './commands/index.ts';
import { refuseSameFile } from './files.ts';
import { overOption } from './options.ts';

/** Where a call writes: its result, and what went wrong. */
export interface Streams {
  out(text: string): void;
  err(text: string): void;
}

/**
 * The command: prints a result as JSON, or one sentence where it went wrong.
 *
 * @returns the exit code: 0; 1 for a wrong call; 2 for bad input
 */
export async function hem(words: readonly string[], { out, err }: Streams): Promise<number> {
  const root = program((result) => out(`${JSON.stringify(result, null, 2)}\n`));
  for (const command of [root, ...root.commands]) command.configureOutput({ writeOut: out, writeErr: err });
  try {
    await root.parseAsync([...words], { from: 'user' });
    return 0;
  } catch (error) {
    if (error instanceof CommanderError) return error.exitCode === 0 ? 0 : 1;
    if (!(error instanceof HemError)) throw error;
    err(`${error.message}\n`);
    // Parameters are checked once more where they are used.
    return error.code === 'wrong-parameters' ? 1 : 2;
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
