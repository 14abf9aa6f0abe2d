import { pinsOf, staysOf } from '../../document/constraints.ts';
import { type HemDocument, shellOf, shellsOf, shellUv } from '../../document/document.ts';
import { knownFaces } from '../../document/known.ts';
import { cornerUv, uvDifference } from '../../document/uvChange.ts';
import { HemError } from '../../errors.ts';
import { about, choice, numbers, record, type Taken, whole } from '../../params.ts';
import { BRUSHES } from '../../relax/brush.ts';
import type { Shell } from '../../surface/shell.ts';
import { closeness, toldLanded } from '../arrange/closeness.ts';
import { operation } from '../operation.ts';

export const brushParams = record({
  face: about('a face of the shell', whole()),
  brush: about('what it does', choice(...BRUSHES)),
  dabs: about(
    'touches, six numbers each: u, v, how far the hand went since the last in u and v, radius, strength from 0 to 1',
    numbers,
    'heights of a tile',
  ),
});
export type BrushParams = Taken<typeof brushParams>;

const LABELS = { push: 'Push', relax: 'Relax by brush', gather: 'Gather', spread: 'Spread' } as const;

/** A stroke of a brush over the flat. No face ever folds; pins and stays hold. */
export const brush = operation({
  name: 'brush',
  stage: 'unfold',
  params: brushParams,
  label: ({ brush }) => LABELS[brush],
  doing: 'Brushing',
  async run(document, params, context) {
    const { s, shell, uv, held } = underBrush(document, params);
    const laid = await context.jobs.run(
      'brush',
      { shell, uv, held, brush: params.brush, dabs: params.dabs },
      context,
    );
    const next = cornerUv(document, new Map([[s, laid]]));
    const close = closeness(document, next);
    return {
      changes: [uvDifference(document, next)],
      notes: toldLanded(close, [s]),
    };
  },
});

export interface UnderBrush {
  readonly s: number;
  readonly shell: Shell;
  readonly uv: Float64Array;
  /** 1 for vertices that stay. */
  readonly held: Uint8Array;
}

/** @throws HemError when the shell does not lie flat, or the touches are no touches */
export function underBrush(document: HemDocument, { face, dabs }: BrushParams): UnderBrush {
  knownFaces(document.model.mesh, [face]);
  if (dabs.length % 6 !== 0) throw new HemError('no-touches', 'Touches of a brush are six numbers each.');
  const s = shellsOf(document).faceShell[face];
  const shell = shellOf(document, s);
  const uv = shellUv(document, shell);
  if (!uv)
    throw new HemError('nothing-unfolded', 'Only what lies flat can be brushed: unfold it first.', [face]);
  const held = new Uint8Array(uv.length / 2);
  for (const v of pinsOf(document, shell)) held[v] = 1;
  for (const { vertices } of staysOf(document, s)) for (const v of vertices) held[v] = 1;
  return { s, shell, uv, held };
}
