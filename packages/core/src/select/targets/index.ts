import { edges } from './edges.ts';
import { faces } from './faces.ts';
import { points } from './points.ts';
import { shells } from './shells.ts';
import type { Target } from './target.ts';

/** What a hand picks, in the order in which it is offered. */
const LIST = [points, edges, faces, shells] as const;
export type TargetId = (typeof LIST)[number]['id'];
export const TARGETS: readonly TargetId[] = LIST.map(({ id }) => id);

export const targetOf = (id: TargetId): Target<TargetId> =>
  LIST.find((target) => target.id === id) as Target<TargetId>;
