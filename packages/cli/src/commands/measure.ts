import { basename } from 'node:path';
import { sessionOverUvs } from '../asking.ts';
import { measured } from '../measured.ts';

/** The figures of the UVs a file has. */
export async function run(input: string, { set }: { readonly set?: string }): Promise<object> {
  return { file: basename(input), ...(await measured(await sessionOverUvs(input, set))) };
}
