import { boundingBox } from '../mesh/mesh.ts';
import { type Check, findingOf } from './check.ts';

/** Distance from the origin over size beyond which single-precision files lose a thousandth of an edge or so. */
const FAR = 1e4;
/** Sizes beyond which other programs lose their footing, common practice. */
const SMALL = 1e-5;
const LARGE = 1e6;

/** A model very far from the origin, very small or very large. */
export const farAway: Check = {
  kind: 'extreme-coordinates',
  when: 'ten thousand times the model’s size from the origin, or a size below 10⁻⁵ or above 10⁶',
  severity: 'hint',
  thing: ['extreme coordinate', 'extreme coordinates'],
  effect: 'Here nothing is lost, but files in single precision round such points, and cameras clip them.',
  find({ mesh }) {
    const box = boundingBox(mesh.positions);
    const size = Math.max(box[3] - box[0], box[4] - box[1], box[5] - box[2]);
    const far = Math.max(...box.map(Math.abs));
    if (far <= FAR * size && size >= SMALL && size <= LARGE) return undefined;
    const vertices = Array.from({ length: mesh.positions.length / 3 }, (_, v) => v);
    return findingOf({ vertices }, 1);
  },
};
