import { basename } from 'node:path';
import { topologyOf } from '@blunt-hem/core/document/document';
import { UP_AXES } from '@blunt-hem/core/document/fields';
import type { AskedOf } from '@blunt-hem/core/questions/index';
import { edgeVisibility } from '@blunt-hem/core/surface/visibility';
import { sessionOver } from '../asking.ts';
import { replaceFile } from '../replaceFile.ts';

export interface ExposureOptions extends AskedOf<'visibility'> {
  readonly out: string;
  readonly up: (typeof UP_AXES)[number];
}

/** How much is seen of every edge. */
export async function run(input: string, { out, up, view }: ExposureOptions): Promise<object> {
  const session = await sessionOver(input, { keepUvs: false, upAxis: UP_AXES.indexOf(up) });
  const { connectivity } = topologyOf(session.document.model);
  const seen = await session.ask('visibility', { view });
  const visibility = seen ? edgeVisibility(connectivity, seen.vertices) : new Float32Array(0);
  const edges = Array.from(visibility, (value, e) => [
    connectivity.edgeVertices[2 * e],
    connectivity.edgeVertices[2 * e + 1],
    Math.round(1e4 * value) / 1e4,
  ]);
  await replaceFile(out, `${JSON.stringify({ edges })}\n`);
  const mean = visibility.reduce((sum, x) => sum + x, 0) / (visibility.length || 1);
  return { file: basename(input), out: basename(out), edges: edges.length, mean };
}
