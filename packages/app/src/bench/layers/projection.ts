import { Matrix4, Vector3 } from 'three';
import type { BenchStore } from '../../store/bench.ts';
import { PALETTE } from '../../theme/palette.ts';
import { fatLines } from '../panes/fatLines.ts';
import type { Layer } from './layer.ts';

/** The plane, cylinder, sphere or box from which faces are projected, and the seam of a wrap. */
export const projectionFrame: Layer = {
  name: 'projection',
  pane: 'model',
  passing: true,
  make() {
    const lines = fatLines({ colour: PALETTE.pine, width: 2, opacity: 0.8, order: 6, through: true });
    return {
      object: lines.object,
      needs: (s) => [
        s.tool === 'project',
        s.projectionPreview,
        s.projectionFrame,
        s.projectionSize,
        s.projectionKind,
        s.model,
        s.dark,
      ],
      update(s) {
        lines.material.color.set(s.dark ? PALETTE.moon : PALETTE.pine);
        lines.set(Float32Array.from(s.tool === 'project' ? linesOf(s) : []));
      },
      dispose: lines.dispose,
    };
  },
};

const STEPS = 48;

/** Both ends of every line, xyz. */
function linesOf(s: BenchStore): number[] {
  const frame = s.projectionFrame ?? s.projectionPreview?.frame;
  if (!frame || !s.model) return [];
  const { box } = s.model;
  const half = 0.36 * Math.hypot(box[3] - box[0], box[4] - box[1], box[5] - box[2]) * s.projectionSize;
  const up = new Vector3().fromArray(frame.up);
  const right = new Vector3().crossVectors(up, new Vector3().fromArray(frame.toward)).normalize();
  const toWorld = new Matrix4()
    .makeBasis(right, up, new Vector3().crossVectors(right, up))
    .setPosition(new Vector3().fromArray(frame.origin));
  return SHAPES[s.projectionKind](half).flatMap((point) =>
    new Vector3(...point).applyMatrix4(toWorld).toArray(),
  );
}

type Point = [number, number, number];

const ring = (at: (angle: number) => Point): Point[] =>
  Array.from({ length: STEPS }, (_, i) => [
    at((2 * Math.PI * i) / STEPS),
    at((2 * Math.PI * (i + 1)) / STEPS),
  ]).flat();

const chain = (points: readonly Point[]): Point[] =>
  points.slice(1).flatMap((point, i) => [points[i], point]);

/** Lines of each shape, to the right, up and toward: a wrap is opened opposite to where it looks. */
const SHAPES: Readonly<Record<BenchStore['projectionKind'], (r: number) => Point[]>> = {
  plane: (r) => [
    ...chain([
      [-r, -r, 0],
      [r, -r, 0],
      [r, r, 0],
      [-r, r, 0],
      [-r, -r, 0],
    ]),
    // Which way is up.
    ...chain([
      [-0.12 * r, 0.86 * r, 0],
      [0, 0.98 * r, 0],
      [0.12 * r, 0.86 * r, 0],
    ]),
  ],
  cylinder: (r) => [
    ...[-r, r].flatMap((y) => ring((a) => [0.6 * r * Math.sin(a), y, 0.6 * r * Math.cos(a)])),
    [0, -r, -0.6 * r],
    [0, r, -0.6 * r],
  ],
  sphere: (r) => [
    ...ring((a) => [r * Math.sin(a), 0, r * Math.cos(a)]),
    ...chain(
      Array.from({ length: STEPS / 2 + 1 }, (_, i): Point => {
        const a = (2 * Math.PI * i) / STEPS - Math.PI / 2;
        return [0, r * Math.sin(a), -r * Math.cos(a)];
      }),
    ),
  ],
  box: (r) => {
    const points: Point[] = [];
    for (const a of [-r, r])
      for (const b of [-r, r])
        points.push([-r, a, b], [r, a, b], [a, -r, b], [a, r, b], [a, b, -r], [a, b, r]);
    return points;
  },
};
