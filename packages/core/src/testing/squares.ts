import { type HemDocument, openDocument } from '../document/document.ts';
import { meshFromPolygons } from '../mesh/mesh.ts';
import { modelFromMesh } from '../mesh/model.ts';

/** Squares of side 1 on the model, with the lower left corners and sides of theirs in the flat. */
export function squares(...places: readonly (readonly [u: number, v: number, side: number])[]): HemDocument {
  const mesh = meshFromPolygons(
    places.flatMap((_, i) => [
      [2 * i, 0, 0],
      [2 * i + 1, 0, 0],
      [2 * i + 1, 1, 0],
      [2 * i, 1, 0],
    ]),
    places.map((_, i) => [4 * i, 4 * i + 1, 4 * i + 2, 4 * i + 3]),
  );
  const uv = Float64Array.from(
    places.flatMap(([u, v, side]) => [u, v, u + side, v, u + side, v + side, u, v + side]),
  );
  return openDocument({ ...modelFromMesh('Squares', mesh), uvSets: [{ name: 'UV', uv }] });
}
