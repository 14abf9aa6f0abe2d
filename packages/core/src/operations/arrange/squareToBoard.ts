import { keepsPlaces } from '../../document/constraints.ts';
import type { HemDocument } from '../../document/document.ts';
import type { Shell } from '../../surface/shell.ts';
import { meanOf, transformUv } from '../../surface/similarity.ts';
import { upInFlat } from '../../unfold/upright.ts';
import { nearOldPlace } from './boardLayout.ts';

/**
 * Where a map with sides along u and v comes to lie in the place of its shell, turned by right angles alone: as it was turned, or where shells keep no places, with up upwards as
 * nearly as can be.
 */
export function squareToBoard(
  document: HemDocument,
  shell: Shell,
  uv: Float64Array,
  density: number,
): Float64Array {
  const turns = [0, 1, 2, 3].map((quarter) => {
    const [c, s] = [
      [1, 0],
      [0, 1],
      [-1, 0],
      [0, -1],
    ][quarter];
    return transformUv(uv, [c, s, -s, c, 0, 0]);
  });
  const upright = turns.reduce((best, each) => (upOf(each) > upOf(best) + 1e-9 ? each : best));
  if (!keepsPlaces(document)) return upright.map((x) => x * density);
  const near = nearOldPlace(document, shell, upright, density);
  const [cu, cv] = meanOf(near);
  const far = (each: Float64Array): number => {
    const [mu, mv] = meanOf(each);
    let sum = 0;
    for (let i = 0; i < each.length; i += 2)
      sum +=
        (density * (each[i] - mu) + cu - near[i]) ** 2 +
        (density * (each[i + 1] - mv) + cv - near[i + 1]) ** 2;
    return sum;
  };
  const nearest = turns.reduce((best, each) => (far(each) < far(best) * (1 - 1e-9) ? each : best));
  const [mu, mv] = meanOf(nearest);
  return transformUv(nearest, [density, 0, 0, density, cu - density * mu, cv - density * mv]);

  function upOf(each: Float64Array): number {
    const [u, v] = upInFlat(shell, each, document.upAxis);
    return v / (Math.hypot(u, v) || 1);
  }
}
