import { openDocument, shellOf, shellsOf, topologyOf } from '@blunt-hem/core/document/document';
import { modelFromMesh } from '@blunt-hem/core/mesh/model';
import type { Shell } from '@blunt-hem/core/surface/shell';
import { sheet, sphericalCap, wholeShell } from '@blunt-hem/core/testing/shapes';
import { edgeKey } from '../demo/cage.ts';
import { toadFerryman } from '../demo/toadFerryman.ts';

/** A cap that goes well past the equator, of about so many triangles: strongly curved, and the same shape at every size. */
export function cap(triangles: number): Shell {
  const rings = Math.round(Math.sqrt(triangles / 8));
  return sphericalCap(rings, 4 * rings, 2);
}

const hill = (u: number, v: number, height: number, width: number) =>
  height * Math.exp(-(u * u + v * v) / width);

/** One hill far higher than wide, `2 × side²` triangles. */
export const horn = (side: number): Shell =>
  wholeShell(
    sheet(side, side, (i, j) => {
      const [u, v] = [(20 * i) / side - 10, (20 * j) / side - 10];
      return [v, u, hill(u, v, 12, 6)];
    }),
  );

/** Two steep hills on a sheet, `2 × side²` triangles. */
export function hills(side: number): Shell {
  return wholeShell(
    sheet(side, side, (i, j) => {
      const [u, v] = [(20 * i) / side, (20 * j) / side];
      return [v, u, hill(u - 7, v - 8, 7, 9) + hill(u - 14, v - 14, 5, 7)];
    }),
  );
}

/** The shells of the demo figure, along the seams it comes with; the largest first. */
export function toadShells(): Shell[] {
  const { mesh, seams } = toadFerryman();
  const opened = openDocument(modelFromMesh('toad', mesh));
  const { edgeVertices } = topologyOf(opened.model).connectivity;
  const cut = new Set(seams.map(([a, b]) => edgeKey(a, b)));
  const marks = opened.seams.map((_, e) =>
    cut.has(edgeKey(edgeVertices[2 * e], edgeVertices[2 * e + 1])) ? 1 : 0,
  );
  const document = { ...opened, seams: marks };
  return Array.from({ length: shellsOf(document).shellCount }, (_, s) => shellOf(document, s)).sort(
    (a, b) => b.triangles.length - a.triangles.length,
  );
}

/** So many patches of 2 × 8² triangles, each a little different. */
export const patches = (many: number): Shell[] =>
  Array.from({ length: many }, (_, n) =>
    wholeShell(sheet(8, 8, (i, j) => [j + 0.1 * Math.sin(n + i), i, Math.sin(0.3 * i * j + n)])),
  );
