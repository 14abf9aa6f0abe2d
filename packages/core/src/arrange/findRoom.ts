import type { UvBox } from '../surface/uvBox.ts';

/**
 * The nearest place where a box keeps clear of others: its own, or else one found in rings going out from it.
 *
 * @param gap  least distance to the others
 * @returns how far to move in u and in v
 */
export function findRoom(box: UvBox, others: readonly UvBox[], gap: number): readonly [number, number] {
  const step = 0.25 * Math.max(Math.min(box[2] - box[0], box[3] - box[1]), gap, 1e-9);
  const clear = (mu: number, mv: number) =>
    others.every(
      (o) =>
        box[0] + mu >= o[2] + gap ||
        box[2] + mu <= o[0] - gap ||
        box[1] + mv >= o[3] + gap ||
        box[3] + mv <= o[1] - gap,
    );
  if (clear(0, 0)) return [0, 0];
  for (let ring = 1; ring < 400; ring++) {
    const places = Math.max(16, 4 * ring);
    for (let k = 0; k < places; k++) {
      const angle = (2 * Math.PI * k) / places;
      const [mu, mv] = [ring * step * Math.cos(angle), ring * step * Math.sin(angle)];
      if (clear(mu, mv)) return [mu, mv];
    }
  }
  return [Math.max(0, ...others.map((o) => o[2] + gap - box[0])), 0];
}
