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
export function partsBy(kind: PartKind, model: Model, links: Connectivity): Parts {
  switch (kind) {
    case 'object':
      return { facePart: model.faceObject, names: model.objects };
    case 'group':
      return { facePart: model.faceGroup, names: model.groups };
    case 'material': {
      const none = model.materials.length;
      const facePart = Uint32Array.from(model.faceMaterial, (m) => (m < 0 ? none : m));
      return { facePart, names: facePart.includes(none) ? [...model.materials, ''] : model.materials };
    }
    case 'smoothing': {
      const groups = [...new Set(model.faceSmoothing)].sort((a, b) => b - a);
      const number = new Map(groups.map((group, i) => [group, i]));
      return {
        facePart: Uint32Array.from(model.faceSmoothing, (group) => number.get(group) as number),
        names: groups.map((group) => (group > 0 ? `Smoothing ${group}` : group === 0 ? 'Off' : 'Not said')),
      };
    }
    case 'piece': {
      const { label, count } = loosePieces(model.mesh, links);
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
