import type { WeightedTriangles } from '../surface/anyDiagonal.ts';

/**
 * Triangles with others that hardly count but must not flip either.
 *
 * @param part  what the others count together, as a part of the first
 */
export function withGuards(
  first: WeightedTriangles,
  guards: WeightedTriangles,
  part: number,
): WeightedTriangles {
  const weight = part * (first.rest.totalArea / guards.rest.totalArea);
  const concatenated = <T extends Uint32Array | Float64Array>(into: T, a: T, b: T): T => {
    into.set(a);
    into.set(b, a.length);
    return into;
  };
  const own = first.triangles.length;
  const count = own + guards.triangles.length;
  return {
    triangles: concatenated(new Uint32Array(count), first.triangles, guards.triangles),
    rest: {
      local: concatenated(new Float64Array(count), first.rest.local, guards.rest.local),
      area: concatenated(
        new Float64Array(count / 3),
        first.rest.area,
        guards.rest.area.map((a) => weight * a),
      ),
      totalArea: (1 + part) * first.rest.totalArea,
    },
  };
}
