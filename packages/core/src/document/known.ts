import { HemError } from '../errors.ts';
import { faceCount, type Mesh } from '../mesh/mesh.ts';
import type { PartKind } from '../mesh/parts.ts';

/** @throws HemError when a number is none of this mesh's faces */
export function knownFaces(mesh: Mesh, faces: readonly number[]): readonly number[] {
  const count = faceCount(mesh);
  const unknown = faces.filter((f) => f >= count);
  if (unknown.length > 0) {
    throw new HemError('no-such-face', `There is no face ${unknown[0]}: the model has ${count}.`, unknown);
  }
  return faces;
}

/** @throws HemError when a number is none of the model's parts of that kind, which people count from 1 */
export function knownParts(
  kind: PartKind,
  names: ArrayLike<unknown>,
  parts: readonly number[],
): ReadonlySet<number> {
  const unknown = parts.filter((p) => p >= names.length);
  if (unknown.length > 0) {
    throw new HemError(
      'no-such-part',
      `There is no ${kind} ${unknown[0] + 1}: the model has ${names.length}.`,
      unknown,
    );
  }
  return new Set(parts);
}
