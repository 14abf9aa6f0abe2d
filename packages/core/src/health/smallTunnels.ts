import { findEdge } from '../mesh/connectivity.ts';
import { heedStop } from '../progress.ts';
import { smallHandles } from '../seams/smallHandles.ts';
import { extractShell, faceTriangleStart } from '../surface/shell.ts';
import { shellsFromSeams } from '../surface/shells.ts';
import { type Check, findingOf } from './check.ts';

/** Handles of a piece that are too small to be meant. */
export const smallTunnels: Check = {
  kind: 'small-tunnels',
  when: 'handles with a ring round them shorter than 8 % of the root of the surface of their piece',
  severity: 'hint',
  thing: ['small tunnel', 'small tunnels'],
  effect:
    'Scans and sculpts have them where the surface closed over a gap. Opening a piece cuts a ring round each, which paints worse than none.',
  find({ mesh, connectivity, triangulation }, _, { signal }) {
    const shells = shellsFromSeams(mesh, connectivity, new Uint8Array(connectivity.isInterior.length));
    const start = faceTriangleStart(mesh, triangulation);
    const edges: number[] = [];
    let count = 0;
    for (let s = 0; s < shells.shellCount; s++) {
      heedStop(signal);
      const shell = extractShell(mesh, triangulation, start, shells, s);
      const vertexOf = (v: number) => mesh.cornerVertex[shell.vertexCorner[v]];
      for (const ring of smallHandles(shell)) {
        count++;
        for (const [a, b] of ring.edges) edges.push(findEdge(connectivity, vertexOf(a), vertexOf(b)));
      }
    }
    return findingOf({ edges }, count);
  },
};
