import { basename } from 'node:path';
import { topologyOf } from '@blunt-hem/core/document/document';
import { UP_AXES } from '@blunt-hem/core/document/fields';
import type { AskedOf } from '@blunt-hem/core/questions/index';
import { edgeExposure } from '@blunt-hem/core/surface/viewExposure';
import { sessionOver } from '../asking.ts';
import { replaceFile } from '../replaceFile.ts';

export interface ExposureOptions extends AskedOf<'exposure'> {
  readonly out: string;
  readonly up: (typeof UP_AXES)[number];
}

/** How much is seen of every edge. */
export async function run(input: string, { out, up, view }: ExposureOptions): Promise<object> {
  const session = await sessionOver(input, { keepUvs: false, upAxis: UP_AXES.indexOf(up) });
  const { links } = topologyOf(session.document.model);
  const seen = await session.ask('exposure', { view });
  const exposure = seen ? edgeExposure(links, seen.vertices) : new Float32Array(0);
  const edges = Array.from(exposure, (value, e) => [
    links.edgeVertices[2 * e],
    links.edgeVertices[2 * e + 1],
    Math.round(1e4 * value) / 1e4,
  ]);
  await replaceFile(out, `${JSON.stringify({ edges })}\n`);
  const mean = exposure.reduce((sum, x) => sum + x, 0) / (exposure.length || 1);
  return { file: basename(input), out: basename(out), edges: edges.length, mean };
}
