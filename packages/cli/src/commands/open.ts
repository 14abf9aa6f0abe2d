import { basename } from 'node:path';
import { topologyOf } from '@blunt-hem/core/document/document';
import { sessionOver } from '../asking.ts';
import { saveSeams } from '../files.ts';

/** Opens pieces that cannot lie flat as they are, and writes the edges that were cut. */
export async function run(input: string, { out }: { readonly out: string }): Promise<object> {
  const session = await sessionOver(input, { keepUvs: false });
  const { notes } = await session.perform('open-pieces', {}, { alone: true });
  const { seams, model } = session.document;
  const edges = [...seams.keys()].filter((e) => seams[e] === 1);
  await saveSeams(out, topologyOf(model).connectivity, edges);
  return { file: basename(input), out: basename(out), edges: edges.length, notes };
}
