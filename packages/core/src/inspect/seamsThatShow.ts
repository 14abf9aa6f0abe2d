import type { Found, Inspection } from './inspection.ts';

/** A seam shows when more is seen of it than of two thirds of all edges; so much of the length of all seams may. Judgements of ours. */
const [SHOWS, ALLOWED] = [2 / 3, 0.1];

/**
 * Seams in the third of the edges of a model that is seen most.
 *
 * @param visibility  of every edge, 0 to 1
 * @returns undefined where less than a tenth of their length does
 */
export function seamsThatShow(
  seams: readonly number[],
  visibility: Float32Array,
  lengthOf: (edge: number) => number,
): (Found & { readonly inspection: Pick<Inspection, 'kind' | 'severity' | 'effect' | 'thing'> }) | undefined {
  const bound = Float32Array.from(visibility).sort()[Math.floor(SHOWS * visibility.length)];
  const edges = seams.filter((e) => visibility[e] > bound);
  const sum = (list: readonly number[]) => list.reduce((whole, e) => whole + lengthOf(e), 0);
  const share = sum(edges) / (sum(seams) || 1);
  if (share < ALLOWED) return undefined;
  return {
    count: Math.round(100 * share),
    edges,
    inspection: {
      kind: 'seams-show',
      severity: 'hint',
      thing: ['% of the length of seams shows', '% of the length of seams shows'],
      effect:
        'Paint breaks there where everybody looks: shift those seams to a fold or the far side (R), or sew them.',
    },
  };
}
