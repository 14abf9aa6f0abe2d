import { basename } from 'node:path';
import { topologyOf } from '@blunt-hem/core/document/document';
import { readSeams } from '@blunt-hem/core/formats/seamFile';
import { sessionOver } from '../asking.ts';
import { carried } from '../carried.ts';
import { fileText } from '../files.ts';

/** Cuts along seams, lays the shells as straight strips, and writes the model. */
export async function run(
  input: string,
  { seams, out }: { readonly seams: string; readonly out: string },
): Promise<object> {
  const session = await sessionOver(input, { keepUvs: false });
  const { connectivity } = topologyOf(session.document.model);
  const edges = readSeams(await fileText(seams), basename(seams), connectivity);
  if (edges.length > 0) await session.perform('cut', { edges }, { alone: true });
  return carried(session, input, out, 'straight-strip', {});
}
