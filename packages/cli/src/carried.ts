import { basename } from 'node:path';
import type { OperationName, ParamsOf } from '@blunt-hem/core/operations/catalogue';
import type { Session } from '@blunt-hem/core/session/session';
import { save } from './files.ts';
import { measured } from './measured.ts';

/** Does one operation on what a session holds, writes the model, and tells what came of it. */
export async function carried<N extends OperationName>(
  session: Session,
  input: string,
  out: string,
  operation: N,
  params: ParamsOf<N>,
): Promise<object> {
  const start = performance.now();
  const { notes } = await session.perform(operation, params, { alone: true });
  const seconds = (performance.now() - start) / 1000;
  const { document } = session;
  await save(out, document);
  return { file: basename(input), out: basename(out), seconds, notes, ...(await measured(session)) };
}
