import type { RayCaster } from '../surface/rays.ts';
import type { BakeNeed, BakeSurface } from './bakeSurface.ts';
import { castOver, directionsOver, meanDistance, openPart } from './openness.ts';
import { mixedAt, negative, unit, type Weights } from './vectors.ts';

/** What a map is made from, and how well. */
export interface BakeSubject {
  readonly surface: BakeSurface;
  readonly cast: RayCaster;
  /** Rays from each place. */
  readonly rays: number;
  /** What is farther off does not count, a length. */
  readonly reach: number;
}

/** Values of a place of the surface, each 0 to 1: of a triangle and the weights of its corners. */
export type Sampler = (triangle: number, weights: Weights, turn: number) => readonly number[];

/** A picture made from the model for a painter. */
export interface BakeMap {
  readonly name: string;
  readonly label: string;
  readonly summary: string;
  readonly channels: 1 | 3;
  /** Bits of a value. */
  readonly depth: 8 | 16;
  /** Whether values name something, so that they are never mixed. */
  readonly isLabel?: true;
  readonly needs?: BakeNeed;
  /** What does not count is farther than this part of the model's size. */
  readonly reach?: number;
  /** What lies where no shell does. */
  readonly ground: readonly number[];
  sampler(subject: BakeSubject): Sampler;
}

/** A bulge of a ball this part of the model's size is white, a hollow of it black. */
export const ROUNDEST = 0.05;

/** Every map. */
export const BAKE_MAPS = [
  {
    name: 'ambient-occlusion',
    label: 'Ambient occlusion',
    summary: 'how much of an even sky falls on each place, weighed by cosine',
    channels: 1,
    depth: 16,
    reach: 1,
    ground: [1],
    sampler: (subject) => openTo(subject, 'cosine'),
  },
  {
    name: 'exposure',
    label: 'Exposure',
    summary: 'from how much of what lies round it each place is seen',
    channels: 1,
    depth: 16,
    reach: 1,
    ground: [1],
    sampler: (subject) => openTo(subject, 'even'),
  },
  {
    name: 'curvature',
    label: 'Curvature',
    summary: `mean curvature: a half where it is flat, white at a bulge as round as a ball of ${100 * ROUNDEST} % of the model’s size, black in such a hollow`,
    channels: 1,
    depth: 16,
    ground: [0.5],
    needs: 'curvature',
    sampler({ surface }) {
      const { curvature } = surface;
      const radius = ROUNDEST * surface.size;
      return (t, w) => {
        const bend = w[0] * curvature[3 * t] + w[1] * curvature[3 * t + 1] + w[2] * curvature[3 * t + 2];
        return [0.5 + 0.5 * Math.max(-1, Math.min(1, bend * radius))];
      };
    },
  },
  {
    name: 'position',
    label: 'Position',
    summary: 'where each place lies: x, y and z from the low corner of the model’s box, in its longest side',
    channels: 3,
    depth: 16,
    ground: [0, 0, 0],
    sampler({ surface: { points, box } }) {
      const side = Math.max(box[3] - box[0], box[4] - box[1], box[5] - box[2]) || 1;
      return (t, w) => mixedAt(points, t, w).map((x, k) => (x - box[k]) / side);
    },
  },
  {
    name: 'normal',
    label: 'World normal',
    summary: 'which way each place faces, in the axes of the model: a half of each value, and a half',
    channels: 3,
    depth: 16,
    ground: [0.5, 0.5, 0.5],
    sampler:
      ({ surface: { normals } }) =>
      (t, w) =>
        unit(mixedAt(normals, t, w)).map((x) => 0.5 + 0.5 * x),
  },
  {
    name: 'thickness',
    label: 'Thickness',
    summary:
      'how far it is to the other side through the material, on average, in a quarter of the model’s size',
    channels: 1,
    depth: 16,
    reach: 0.25,
    ground: [1],
    sampler({ surface, cast, rays, reach }) {
      const directions = directionsOver(rays, 'cosine');
      return (t, w, turn) => {
        const inward = negative(unit(mixedAt(surface.normals, t, w)));
        const at = mixedAt(surface.points, t, w);
        return [meanDistance(castOver(cast, at, inward, surface.size, directions, turn), reach) / reach];
      };
    },
  },
  {
    name: 'ids',
    label: 'Colours of parts',
    summary: 'each part in a colour of its own',
    channels: 3,
    depth: 8,
    isLabel: true,
    ground: [0, 0, 0],
    needs: 'parts',
    sampler: colourOf,
  },
  {
    name: 'patch-ids',
    label: 'Colours of patches',
    summary: 'each patch in a colour of its own',
    channels: 3,
    depth: 8,
    isLabel: true,
    ground: [0, 0, 0],
    needs: 'patches',
    sampler: colourOf,
  },
  {
    name: 'shell-ids',
    label: 'Colours of shells',
    summary: 'each shell in a colour of its own',
    channels: 3,
    depth: 8,
    isLabel: true,
    ground: [0, 0, 0],
    needs: 'shells',
    sampler: colourOf,
  },
] as const satisfies readonly BakeMap[];

export type BakeMapName = (typeof BAKE_MAPS)[number]['name'];
export const BAKE_MAP_NAMES = BAKE_MAPS.map(({ name }) => name);
export const bakeMapOf = (name: BakeMapName): BakeMap =>
  BAKE_MAPS.find((map) => map.name === name) as BakeMap;

function openTo({ surface, cast, rays, reach }: BakeSubject, how: 'cosine' | 'even'): Sampler {
  const directions = directionsOver(rays, how);
  return (t, w, turn) => {
    const normal = unit(mixedAt(surface.normals, t, w));
    const at = mixedAt(surface.points, t, w);
    return [openPart(castOver(cast, at, normal, surface.size, directions, turn), reach)];
  };
}

function colourOf({ surface: { labels } }: BakeSubject): Sampler {
  return (t) => labelColour(labels[t]);
}

/** Colours that differ from one number to the next and are one number each: red and green by golden steps, and blue by the number. */
export function labelColour(label: number): [number, number, number] {
  const golden = (times: number) => (label * times) % 1;
  const bytes = [64 + 191 * golden(0.618034), 64 + 191 * golden(0.754878), 64 + (label % 192)];
  return bytes.map((x) => Math.round(x) / 255) as [number, number, number];
}
