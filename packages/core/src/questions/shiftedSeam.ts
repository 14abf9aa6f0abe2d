import { params, shiftOf } from '../operations/cut/shiftSeam.ts';
import { question } from './question.ts';

/** Where a seam would run after it was shifted, and how many faces would change sides. */
export const shiftedSeam = question({
  name: 'shifted-seam',
  params,
  byHand: true,
  answer(document, given): { readonly edges: readonly number[]; readonly faces: number } {
    const { cut, strip } = shiftOf(document, given);
    return { edges: cut, faces: strip.length };
  },
});
