import { gainOf, straightened } from '../operations/cut/straightenSeams.ts';
import { about, indices, record } from '../params.ts';
import { question } from './question.ts';

/** Where seams would run after they were straightened; no edges where they are straight already. */
export const straightenedSeam = question({
  name: 'straightened-seam',
  params: record({ edges: about('seams that would be made straight, by number', indices) }),
  background: true,
  async answer(
    document,
    { edges },
    context,
  ): Promise<{ readonly edges: readonly number[]; readonly gain: string }> {
    const found = await straightened(document, edges, context);
    return { edges: found.cut, gain: gainOf(found) };
  },
});
