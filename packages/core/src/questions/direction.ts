import { current, solidOf, topologyOf } from '../document/document.ts';
import { alongOverAcross } from '../measure/alongOverAcross.ts';
import { record } from '../params.ts';
import { question } from './question.ts';

/** Which way the texture is drawn out on every triangle: see `alongOverAcross`. */
export const direction = question({
  name: 'direction',
  params: record({}),
  byHand: true,
  answer: (document): Float32Array =>
    alongOverAcross(
      solidOf(document),
      topologyOf(document.model).triangulation.triangleCorners,
      current(document).uv,
    ),
});
