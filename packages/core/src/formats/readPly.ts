import { FileError } from '../errors.ts';
import type { Model } from '../mesh/model.ts';
import { modelFromFile } from './modelFromFile.ts';
import { PLY_LOOP, PLY_TEXCOORD, PLY_U, PLY_V, plyHeader } from './plyHeader.ts';
import { plyValues } from './plyValues.ts';

/**
 * Reads a PLY file (Turk 1994), as text or binary in either byte order: polygons of any size, and UVs where vertices (`u v`,
 * `s t`, `texture_u texture_v`) or corners (a `texcoord` list of faces) have them. Other properties are passed over.
 *
 * @returns a model that remembers the file, so that an export can repeat it
 *
 * @throws FileError
 */
export function readPly(bytes: Uint8Array, fileName: string): Model {
  const fail = (problem: string): never => {
    throw new FileError(fileName, problem, 'Export the model again and open the new file.');
  };
  const { elements, encoding, bodyAt } = plyHeader(bytes, fail);
  const values = plyValues(bytes, bodyAt, encoding, fail);
  const positions: number[] = [];
  const vertexUv: number[] = [];
  const faceStart = [0];
  const cornerVertex: number[] = [];
  const cornerUv: number[] = [];
  for (const element of elements) {
    const { name, count, properties } = element;
    // An element takes at least a byte an entry: a greater count is a lie, and believing it could take all memory.
    if (properties.length > 0 && count > bytes.length)
      fail(`it promises ${count} entries of “${name}” and is too short for them.`);
    if (properties.length === 0) continue;
    const place = (names: readonly string[]) => properties.findIndex((p) => names.includes(p.name));
    const xyz = ['x', 'y', 'z'].map((axis) => place([axis]));
    const uv = [place(PLY_U), place(PLY_V)];
    const loop = place(PLY_LOOP);
    const texcoord = place([PLY_TEXCOORD]);
    if (name === 'vertex' && xyz.includes(-1)) fail('its vertices have no x, y and z.');
    for (let i = 0; i < count; i++) {
      const entry = properties.map((property) => {
        if (property.countType === undefined) return values.next(property.type);
        const length = values.next(property.countType);
        if (!(length >= 0 && length <= bytes.length)) fail('a list has an impossible length.');
        return Array.from({ length }, () => values.next(property.type));
      });
      if (name === 'vertex') {
        for (const axis of xyz) positions.push(entry[axis] as number);
        if (uv[0] >= 0 && uv[1] >= 0) vertexUv.push(entry[uv[0]] as number, entry[uv[1]] as number);
      } else if (name === 'face' && loop >= 0) {
        const corners = entry[loop] as number[];
        if (!Array.isArray(corners) || corners.length < 3) continue;
        cornerVertex.push(...corners);
        faceStart.push(cornerVertex.length);
        const flat = texcoord >= 0 ? (entry[texcoord] as number[]) : [];
        for (let k = 0; k < 2 * corners.length; k++) cornerUv.push(flat[k] ?? NaN);
      }
    }
  }
  const vertices = positions.length / 3;
  const astray = cornerVertex.find((v) => !(Number.isInteger(v) && v >= 0 && v < vertices));
  if (astray !== undefined) fail(`a face asks for vertex ${astray} of ${vertices}.`);
  const perVertex = vertexUv.length > 0;
  const uv = cornerVertex.flatMap((v, c) =>
    perVertex ? [vertexUv[2 * v], vertexUv[2 * v + 1]] : [cornerUv[2 * c], cornerUv[2 * c + 1]],
  );
  return {
    ...modelFromFile(fileName, { positions, faceStart, cornerVertex, uv }),
    source: { format: 'ply', bytes },
  };
}
