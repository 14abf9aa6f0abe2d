import { basename } from 'node:path';
import { topologyOf } from '@blunt-hem/core/document/document';
import { HemError } from '@blunt-hem/core/errors';
import type { AskedOf } from '@blunt-hem/core/questions/index';
import { edgeLength } from '@blunt-hem/core/select/shortestPath';
import { sessionOver } from '../asking.ts';
import { saveSeams } from '../files.ts';

/** A way along edges through some vertices. */
export async function run(
  input: string,
  { out, ...asked }: AskedOf<'route'> & { readonly out: string },
): Promise<object> {
  const session = await sessionOver(input, { keepUvs: false });
  const found = await session.ask('route', asked);
  if (!found || found.gap) {
    const near = found?.gap ? ` They come nearest at vertices ${found.gap.join(' and ')}.` : '';
    throw new HemError(
      'no-way',
      `No edges lead from one of these vertices to the next: they are on different pieces.${near}`,
    );
  }
  const { mesh, connectivity } = topologyOf(session.document.model);
  await saveSeams(out, connectivity, found.edges);
  const length = found.edges.reduce((sum, e) => sum + edgeLength(mesh, connectivity, e), 0);
  return { file: basename(input), out: basename(out), edges: found.edges.length, legs: found.legs, length };
}
