import { basename } from 'node:path';
import { topologyOf } from '@blunt-hem/core/document/document';
import { UP_AXES } from '@blunt-hem/core/document/fields';
import type { AskedOf } from '@blunt-hem/core/questions/index';
import { sessionOver } from '../asking.ts';
import { saveSeams } from '../files.ts';

export interface ProposeOptions extends Omit<AskedOf<'proposal'>, 'faces'> {
  readonly out: string;
  readonly up: (typeof UP_AXES)[number];
}

/** Proposes seams, writes them, and tells what would come of them. */
export async function run(input: string, { out, up, ...asked }: ProposeOptions): Promise<object> {
  const start = performance.now();
  const session = await sessionOver(input, { keepUvs: false, upAxis: UP_AXES.indexOf(up) });
  const found = await session.ask('proposal', asked);
  const seconds = (performance.now() - start) / 1000;
  const edges = found?.edges ?? [];
  await saveSeams(out, topologyOf(session.document.model).connectivity, edges);
  const area = found?.shells.reduce((sum, shell) => sum + shell.area, 0) ?? 0;
  return {
    file: basename(input),
    out: basename(out),
    seconds,
    edges: edges.length,
    shells: found?.shells.map(({ edges: _, ...told }) => told),
    l2: Math.sqrt((found?.shells ?? []).reduce((sum, s) => sum + s.area * (s.l2 ?? 1) ** 2, 0) / (area || 1)),
    length: found?.length,
    hidden: found?.hidden,
    symmetric: found?.symmetric ?? null,
    nonManifoldEdges: found?.nonManifoldEdges,
  };
}
