import type { Delta } from '../../document/delta.ts';
import { type HemDocument, shellsOf } from '../../document/document.ts';
import { shellBoxes } from '../../document/layout.ts';
import { chosenShells, nameOfShell } from '../../document/shellChoice.ts';
import { HemError } from '../../errors.ts';
import { transformUv, type UvMatrix } from '../../surface/similarity.ts';
import type { UvBox } from '../../surface/uvBox.ts';
import { changedShells } from './changedShells.ts';

/** A shell that lies flat, by number, with the box in which it lies. */
export interface PlacedShell {
  readonly s: number;
  readonly box: UvBox;
}

/**
 * The shells that are meant and lie flat, without locked ones.
 *
 * @throws HemError when there are fewer than an act takes
 */
export function placedShells(
  document: HemDocument,
  shells: readonly number[],
  least = 1,
): readonly PlacedShell[] {
  const boxes = shellBoxes(document);
  const placed = chosenShells(document, shells).flatMap((s) => {
    const box = boxes[s];
    return box ? [{ s, box }] : [];
  });
  if (placed.length < least)
    throw new HemError(
      'too-few-shells',
      least === 1
        ? 'None of these shells lies flat: unfold it first.'
        : `It takes ${least === 2 ? 'two' : 'three'} shells that lie flat and are not locked.`,
    );
  return placed;
}

/** Lays some shells each by a map of its own, exactly so. */
export function placeShells(
  document: HemDocument,
  placed: readonly PlacedShell[],
  matrixOf: (shell: PlacedShell, i: number) => UvMatrix,
): Delta {
  const { faceShell } = shellsOf(document);
  const matrices = new Map(placed.map((shell, i) => [shell.s, matrixOf(shell, i)]));
  const faces = placed.map(({ s }) => nameOfShell(document, s));
  return changedShells(document, faces, (shell, uv) => {
    const matrix = matrices.get(faceShell[shell.triangleFace[0]]);
    return matrix ? transformUv(uv, matrix) : uv;
  });
}

export const moveBy = (u: number, v: number): UvMatrix => [1, 0, 0, 1, u, v];

export const middleOf = ([minU, minV, maxU, maxV]: UvBox): readonly [number, number] => [
  (minU + maxU) / 2,
  (minV + maxV) / 2,
];

/** A turn by an angle, radians anticlockwise, and a scale about a point. */
export function turnAbout([u, v]: readonly [number, number], angle: number, scale = 1): UvMatrix {
  const [c, s] = [scale * Math.cos(angle), scale * Math.sin(angle)];
  return [c, s, -s, c, u - c * u + s * v, v - s * u - c * v];
}

/** The box round all of some boxes. */
export const boxAround = (boxes: readonly UvBox[]): UvBox => [
  Math.min(...boxes.map(([minU]) => minU)),
  Math.min(...boxes.map(([, minV]) => minV)),
  Math.max(...boxes.map(([, , maxU]) => maxU)),
  Math.max(...boxes.map(([, , , maxV]) => maxV)),
];
