import type { Connectivity } from './connectivity.ts';
import { loosePieces, type Model } from './model.ts';

/** What a model can be told apart by. */
export const PART_KINDS = ['object', 'group', 'material', 'smoothing', 'piece'] as const;
export type PartKind = (typeof PART_KINDS)[number];

/** Named sets of faces; every face is in one. */
export interface Parts {
  readonly facePart: Uint32Array;
  readonly names: readonly string[];
}

/** The parts of a model of one kind. */
export function partsBy(kind: PartKind, model: Model, connectivity: Connectivity): Parts {
  switch (kind) {
    case 'object':
      return { facePart: model.faceObject, names: model.objects };
    case 'group':
      return { facePart: model.faceGroup, names: model.groups };
    case 'material': {
      const none = model.materials.length;
      const facePart = new Uint32Array(model.faceMaterial.length);
      for (let f = 0; f < facePart.length; f++) {
        const m = model.faceMaterial[f];
        facePart[f] = m < 0 ? none : m;
      }
      const names = model.materials.map(({ name }) => name);
      return { facePart, names: facePart.includes(none) ? [...names, ''] : names };
    }
    case 'smoothing': {
      const { faceSmoothing } = model;
      const number = new Map<number, number>();
      // Runs of one group are the rule: each is looked up once.
      for (let f = 0; f < faceSmoothing.length; f++)
        if (f === 0 || faceSmoothing[f] !== faceSmoothing[f - 1]) number.set(faceSmoothing[f], 0);
      const groups = [...number.keys()].sort((a, b) => b - a);
      for (const [i, group] of groups.entries()) number.set(group, i);
      const facePart = new Uint32Array(faceSmoothing.length);
      for (let f = 0; f < facePart.length; f++) {
        const isNew = f === 0 || faceSmoothing[f] !== faceSmoothing[f - 1];
        facePart[f] = isNew ? (number.get(faceSmoothing[f]) as number) : facePart[f - 1];
      }
      return {
        facePart,
        names: groups.map((group) => (group > 0 ? `Smoothing ${group}` : group === 0 ? 'Off' : 'Not said')),
      };
    }
    case 'piece': {
      const { label, count } = loosePieces(model.mesh, connectivity);
      const names = Array.from({ length: count }, (_, i) => `Piece ${i + 1}`);
      return { facePart: label, names: count === 1 ? [model.objects[0] || model.name] : names };
    }
  }
}

/** The kind that tells most: objects; where there is only one, groups; where there is only one of those too, pieces. */
export function mainKind({ objects, groups }: Model): PartKind {
  if (objects.length > 1) return 'object';
  return groups.length > 1 ? 'group' : 'piece';
}
