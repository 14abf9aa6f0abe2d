import type { Shell } from './shell.ts';

/**
 * Rows of edges from some vertices of a shell to all others, over its polygons.
 *
 * @returns edges per shell vertex, Infinity where there is no way
 */
export function rowsFrom({ positions, triangles, polygons }: Shell, sources: Iterable<number>): Float64Array {
  const cornerVertex = polygons?.cornerVertex ?? triangles;
  const faceStart =
    polygons?.faceStart ?? Uint32Array.from({ length: triangles.length / 3 + 1 }, (_, f) => 3 * f);
  const beside: number[][] = Array.from({ length: positions.length / 3 }, () => []);
  for (let f = 0; f + 1 < faceStart.length; f++) {
    for (let c = faceStart[f]; c < faceStart[f + 1]; c++) {
      const next = c + 1 === faceStart[f + 1] ? faceStart[f] : c + 1;
      beside[cornerVertex[c]].push(cornerVertex[next]);
      beside[cornerVertex[next]].push(cornerVertex[c]);
    }
  }
  const rows = new Float64Array(beside.length).fill(Infinity);
  let front = [...sources];
  for (const v of front) rows[v] = 0;
  for (let row = 1; front.length > 0; row++) {
    const next: number[] = [];
    for (const v of front)
      for (const w of beside[v])
        if (rows[w] === Infinity) {
          rows[w] = row;
          next.push(w);
        }
    front = next;
  }
  return rows;
}
