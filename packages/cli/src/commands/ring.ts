import { basename } from 'node:path';
import { topologyOf } from '@blunt-hem/core/document/document';
import { HemError } from '@blunt-hem/core/errors';
import { ringAround } from '@blunt-hem/core/select/ringAround';
import { edgeLength } from '@blunt-hem/core/select/shortestPath';
import { sessionOver } from '../asking.ts';
import { saveSeams } from '../files.ts';

/** The tightest closed ring through a vertex. */
export async function run(
  input: string,
  { at, out }: { readonly at: number; readonly out: string },
): Promise<object> {
  const { document } = await sessionOver(input, { keepUvs: false });
  const { mesh, connectivity } = topologyOf(document.model);
  const count = mesh.positions.length / 3;
  if (at >= count)
    throw new HemError('no-such-point', `There is no vertex ${at}: the model has ${count}.`, [at]);
  const edges = ringAround(mesh, connectivity, at);
  await saveSeams(out, connectivity, edges);
  const length = edges.reduce((sum, e) => sum + edgeLength(mesh, connectivity, e), 0);
  return { file: basename(input), out: basename(out), edges: edges.length, length };
}
