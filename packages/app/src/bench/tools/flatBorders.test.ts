import { snapToBorders } from '@blunt-hem/core/measure/snapToBorders';
import { expect, it } from 'vitest';
import { NOWHERE } from '../../worker/protocol.ts';
import { bordersRoundPoints, heldBorders } from './flatBorders.ts';

/** Two triangles beside one another, shells of their own, all of their edges open: edge 3 t + k from corner k of triangle t to the next. */
const uv = Float32Array.from([0, 0, 0.25, 0, 0, 0.25, 0.5, 0, 0.75, 0, 0.5, 0.25]);
const model = {
  edgeEnds: Uint32Array.from(
    [0, 1, 2, 3, 4, 5].flatMap((e) => [e, 3 * Math.floor(e / 3) + ((e + 1) % 3), NOWHERE, NOWHERE]),
  ),
  triangleFace: Uint32Array.from([0, 1]),
  borders: Uint32Array.from([0, 1, 2, 3, 4, 5]),
};
const flat = { uv, faceShell: Uint32Array.from([0, 1]), seams: new Uint32Array(0) };
const hand = [0.25, 0] as const;
const tip = { u: 0.25, v: 0, shell: 0 };

it('of a shell that is moved move, those of others stay', () => {
  const { moved, still } = heldBorders(model, flat, Uint8Array.from([1, 0]), hand);
  expect([moved.length / 4, still.segments.length / 4]).toEqual([3, 3]);
  expect(Math.min(...still.segments.filter((_, i) => i % 2 === 0))).toBe(0.5);
});

it('round a point: that of its own shell that does not end there stays, and the point meets corners of others', () => {
  const { moved, still } = bordersRoundPoints(model, flat, [tip], hand, false);
  expect([...moved]).toEqual([0.25, 0, 0.25, 0]);
  expect(still.segments).toHaveLength(4 * 4);
  const { point } = snapToBorders(moved, [0.2475, 0.001], still, 0.01, 0);
  expect(point?.by[0]).toBeCloseTo(0.0025, 12);
  expect(point?.by[1]).toBeCloseTo(-0.001, 12);
  // Drawn a little aside it does not take hold of where it came from.
  expect(snapToBorders(moved, [0.003, 0.003], still, 0.01, 0)).toEqual({});
});

it('where a point takes others along, nothing of its shell stays', () => {
  expect(bordersRoundPoints(model, flat, [tip], hand, true).still.segments).toHaveLength(3 * 4);
});
