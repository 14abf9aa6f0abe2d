import { shellOf, shellsOf, shellUv } from '../document/document.ts';
import { type Ellipses, indicatrices } from '../measure/indicatrix.ts';
import { about, record, whole } from '../params.ts';
import { question } from './question.ts';

/** Tissot's ellipses all over what lies flat. */
export const ellipses = question({
  name: 'ellipses',
  params: record({ count: about('about how many are shown', whole(1, 20_000)) }),
  byHand: true,
  answer(document, { count }): Ellipses {
    const pieces = [...Array(shellsOf(document).shellCount).keys()].flatMap((s) => {
      const shell = shellOf(document, s);
      const uv = shellUv(document, shell);
      return uv ? [{ shell, uv }] : [];
    });
    return indicatrices(pieces, count);
  },
});
