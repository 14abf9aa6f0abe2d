import type { UvMatrix } from '@blunt-hem/core/surface/similarity';
import type { UvBox } from '@blunt-hem/core/surface/uvBox';
import { useMemo } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { hint } from '../../store/acts.ts';
import { type BenchStore, useBench } from '../../store/bench.ts';
import { boxOfChosen } from '../../store/select.ts';
import { chosenPoints } from './chosenPoints.ts';
import { gripPoints, transformPoints } from './holdPoints.ts';
import { gripShells, transformChosen } from './holdShells.ts';
import type { Grip, Place } from './tool.ts';

export type Point = readonly [u: number, v: number];

/** a, b, c, d of a map of the flat. */
export type Linear = readonly [number, number, number, number];

/** What is moved, turned and scaled on the Board, by the frame, by numbers and by buttons alike. */
export interface Subject {
  readonly box: UvBox;
  readonly what: string;
  grip(matrixAt: (to: Place) => UvMatrix): Grip;
  transform(matrix: UvMatrix): Promise<void>;
}

const SHELLS = { what: 'the selected shells', grip: gripShells, transform: transformChosen };
const POINTS = { what: 'what is selected', grip: gripPoints, transform: transformPoints };

type Known = Pick<
  BenchStore,
  'chosen' | 'shells' | 'stage' | 'model' | 'flat' | 'target' | 'points' | 'edges' | 'faces'
>;

/** Selected shells that are not locked; while one arranges and none is selected, selected points, and those of edges and faces. */
export function subjectOf(state: Known): Subject | undefined {
  const { chosen, shells, stage } = state;
  if (stage === 'arrange' && chosen.size === 0) {
    const { box } = chosenPoints(state);
    return box && { ...POINTS, box };
  }
  const box = boxOfChosen({ chosen: [...chosen].filter((s) => !shells[s]?.locked), shells });
  return box && { ...SHELLS, box };
}

export function useSubject(): Subject | undefined {
  const known = useBench(
    useShallow(
      ({ chosen, shells, stage, model, flat, target, points, edges, faces }): Known => ({
        chosen,
        shells,
        stage,
        model,
        flat,
        target,
        points,
        edges,
        faces,
      }),
    ),
  );
  return useMemo(() => subjectOf(known), [known]);
}

export const middleOf = ([minU, minV, maxU, maxV]: UvBox): Point => [(minU + maxU) / 2, (minV + maxV) / 2];

/** The map that does this about a place. */
export const mapAbout = ([u, v]: Point, [a, b, c, d]: Linear): UvMatrix => [
  a,
  b,
  c,
  d,
  u - a * u - c * v,
  v - b * u - d * v,
];

/** Anticlockwise, radians. */
export const turnBy = (angle: number): Linear => {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return [c, s, -s, c];
};

/** Turns, scales or mirrors what is selected about the pivot; about the middle of its box where none was put. */
export function aboutPivot(linear: Linear): void {
  const state = useBench.getState();
  const subject = subjectOf(state);
  if (subject) void subject.transform(mapAbout(state.pivot ?? middleOf(subject.box), linear));
  else hint('Pick an unfolded shell that is not locked first.');
}
