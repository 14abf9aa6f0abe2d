import { UP_AXES } from '@blunt-hem/core/document/fields';
import { frontOf, upOf } from '@blunt-hem/core/mesh/stance';
import { Vector3 } from 'three';
import { useBench } from '../../../store/bench.ts';
import type { ProjectionFrame } from '../../../store/projecting.ts';
import { handle } from '../../panes/rendererHandle.ts';

/** Ways for it to stand: fitted, along an axis of the model, or as the Model is looked at. */
export const STANDS = {
  fit: 'As it fits',
  x: 'Along x',
  y: 'Along y',
  z: 'Along z',
  view: 'As it is seen',
} as const;

export const triple = ([x, y, z]: readonly number[]): [number, number, number] => [x, y, z];

const AXES = { x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] } as const;

/** Stands it along an axis, or so that it faces who looks at the Model. */
export function stand(way: keyof typeof STANDS): void {
  const state = useBench.getState();
  const { projectionPreview, projectionKind } = state;
  if (way === 'fit') {
    useBench.setState({ projectionFrame: undefined, projectionSize: 1 });
    return;
  }
  const frame = projectionPreview?.frame;
  if (!frame) return;
  const upright = upOf(state);
  if (way === 'view') {
    const looked = lookedFrom();
    if (!looked) return;
    useBench.setState({ projectionFrame: { ...frame, ...looked } });
    return;
  }
  const axis = AXES[way];
  // A plane looks along it, a wrap goes round it.
  const isPlane = projectionKind === 'plane';
  const other = way === UP_AXES[state.upAxis] ? frontOf(state) : upright;
  useBench.setState({
    projectionFrame: {
      origin: frame.origin,
      toward: isPlane ? axis : other,
      up: isPlane ? other : axis,
    },
  });
}

/** Towards the viewer, and what is up on the screen, in the model's own axes. */
function lookedFrom(): Pick<ProjectionFrame, 'toward' | 'up'> | undefined {
  const { renderer } = handle;
  if (!renderer) return undefined;
  const back = renderer.model.standing.clone().invert();
  const along = (x: number, y: number, z: number) =>
    new Vector3(x, y, z).applyQuaternion(renderer.model.seen.quaternion).transformDirection(back).toArray();
  return { toward: along(0, 0, 1), up: along(0, 1, 0) };
}

/** Degrees by which the seam is turned from the back of the model. */
export function seamAngle(frame: ProjectionFrame | undefined): number {
  if (!frame) return 0;
  const [zero, side] = seamAxes(frame);
  const toward = new Vector3(...triple(frame.toward));
  return Math.round((Math.atan2(toward.dot(side), toward.dot(zero)) * 180) / Math.PI / 5) * 5;
}

export function turnSeam(degrees: number): void {
  const { projectionPreview } = useBench.getState();
  const frame = projectionPreview?.frame;
  if (!frame) return;
  const [zero, side] = seamAxes(frame);
  const angle = (degrees * Math.PI) / 180;
  const toward = zero.multiplyScalar(Math.cos(angle)).addScaledVector(side, Math.sin(angle)).toArray();
  useBench.setState({ projectionFrame: { ...frame, toward } });
}

/** Directions at right angles to the axis: the front of the model as nearly as can be, and to the right of it. */
function seamAxes({ up }: ProjectionFrame): [Vector3, Vector3] {
  const axis = new Vector3(...triple(up)).normalize();
  const front = new Vector3(...frontOf(useBench.getState()));
  if (Math.abs(front.dot(axis)) > 0.9) front.set(1, 0, 0);
  const side = new Vector3().crossVectors(axis, front).normalize();
  return [new Vector3().crossVectors(side, axis), side];
}
