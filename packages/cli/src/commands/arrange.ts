import { basename } from 'node:path';
import { HemError } from '@blunt-hem/core/errors';
import { sessionOverUvs } from '../asking.ts';
import { fileText, save } from '../files.ts';
import { measured } from '../measured.ts';
import { readScript } from '../scriptFile.ts';

export interface ArrangeCommandOptions {
  readonly script: string;
  readonly out: string;
  readonly set?: string;
}

/** Carries out acts on the UVs a file has, one after the other, and writes the model; all of them or nothing. */
export async function run(input: string, { script, out, set }: ArrangeCommandOptions): Promise<object> {
  const acts = readScript(await fileText(script), basename(script));
  const session = await sessionOverUvs(input, set);
  const start = performance.now();
  const told: object[] = [];
  for (const [i, { operation, params }] of acts.entries()) {
    try {
      const { notes } = await session.perform(operation, params as never, { alone: true });
      told.push({ operation, notes });
    } catch (error) {
      if (!(error instanceof HemError)) throw error;
      throw new HemError(error.code, `Act ${i + 1}, ${operation}: ${error.message}`, error.ids);
    }
  }
  const seconds = (performance.now() - start) / 1000;
  await save(out, session.document);
  return {
    file: basename(input),
    out: basename(out),
    seconds,
    acts: told,
    ...(await measured(session)),
  };
}
