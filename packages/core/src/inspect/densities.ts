import type { HemDocument } from '../document/document.ts';
import type { Limits } from '../document/limits.ts';
import { weightOfFace } from '../document/patchWeights.ts';
import { texelsAt } from '../surface/tiles.ts';
import { perShell, type Subject, subjectOf } from './subject.ts';

/**
 * Texels per length on the model of each shell, divided by how much finer than the rest its patches are to be, and how much surface it has; NaN where a shell has no UVs or no
 * surface.
 */
export interface Densities {
  readonly density: Float64Array;
  readonly area: Float64Array;
}

export function densitiesOf(subject: Subject): Densities {
  const area = perShell(subject, subject.area);
  const flat = perShell(subject, subject.flatArea);
  const { document } = subject;
  const weighted =
    document.patchWeights.length === 0
      ? area
      : perShell(
          subject,
          subject.area.map((each, f) => each * weightOfFace(document, f)),
        );
  return {
    area,
    density: flat.map(
      (each, s) =>
        (texelsAt(document.tiles, subject.boxes[s]) * Math.sqrt(Math.abs(each) / area[s]) * area[s]) /
        weighted[s],
    ),
  };
}

const NOTHING = new Uint32Array(0);

export const densities = (document: HemDocument): Densities =>
  densitiesOf(subjectOf(document, NOTHING, NOTHING));

/** What half of the surface has at least and half at most; undefined where nothing lies flat. */
export function usualDensity({ density, area }: Densities): number | undefined {
  const known = [...density.keys()].filter((s) => density[s] > 0 && Number.isFinite(density[s]));
  known.sort((a, b) => density[a] - density[b]);
  const half = 0.5 * known.reduce((sum, s) => sum + area[s], 0);
  let sum = 0;
  for (const s of known) {
    sum += area[s];
    if (sum >= half) return density[s];
  }
  return undefined;
}

/** Whether the density of a shell differs from that of most of the surface by more than is put up with; none where nothing lies flat. */
export function isOffDensity(known: Densities, { density: most }: Limits): (shell: number) => boolean {
  const usual = usualDensity(known);
  return (s) => {
    // What has no surface, or none in the flat, has no scale.
    const off = usual === undefined ? NaN : Math.abs(Math.log(known.density[s] / usual));
    return Number.isFinite(off) && off > Math.log(most);
  };
}
