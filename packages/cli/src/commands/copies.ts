import { basename } from 'node:path';
import { sessionOver } from '../asking.ts';

/** Pieces that are the same shape, each family with its first and with what equals it. */
export async function run(input: string): Promise<object> {
  const session = await sessionOver(input, { keepUvs: false });
  return { file: basename(input), families: await session.ask('copies', {}) };
}
