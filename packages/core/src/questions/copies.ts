import { changesModel } from '../document/delta.ts';
import { plainDocument } from '../document/document.ts';
import { record } from '../params.ts';
import { question } from './question.ts';

/** One piece of a family, by its least face. */
export interface ToldCopy {
  readonly face: number;
  readonly mirrored: boolean;
  readonly scale: number;
}

/** Pieces that are the same shape: the first of each family, and what equals it. */
export const copies = question({
  name: 'copies',
  params: record({}),
  background: true,
  lapses: changesModel,
  async answer(
    document,
    _,
    context,
  ): Promise<
    readonly { readonly face: number; readonly faces: number; readonly copies: readonly ToldCopy[] }[]
  > {
    const found = await context.jobs.run('copies', { document: plainDocument(document) }, context);
    return found.map(({ faces, copies: own }) => ({
      face: faces[0],
      faces: faces.length,
      copies: own.map((copy) => ({ face: copy.faces[0], mirrored: copy.mirrored, scale: copy.scale })),
    }));
  },
});
