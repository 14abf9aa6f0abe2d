import { describe, expect, it } from 'vitest';
import { seeded } from '../testing/wander.ts';
import { meetingBoxes } from './meetingBoxes.ts';

/** Every pair by itself. */
function byEach(boxes: Float64Array): string[] {
  const found: string[] = [];
  for (let a = 0; a < boxes.length; a += 4)
    for (let b = a + 4; b < boxes.length; b += 4)
      if (
        boxes[a] < boxes[b + 2] &&
        boxes[b] < boxes[a + 2] &&
        boxes[a + 1] < boxes[b + 3] &&
        boxes[b + 1] < boxes[a + 3]
      )
        found.push(`${a / 4} ${b / 4}`);
  return found;
}

function byGrid(boxes: Float64Array): string[] {
  const found: string[] = [];
  meetingBoxes(boxes, (a, b) => {
    found.push(`${Math.min(a, b)} ${Math.max(a, b)}`);
    return true;
  });
  return found.sort();
}

describe('boxes that meet', () => {
  const random = seeded(5);
  const some = (count: number, place: () => number, size: () => number) =>
    Float64Array.from(
      Array.from({ length: count }).flatMap(() => {
        const [x, y] = [place(), place()];
        return [x, y, x + size(), y + size()];
      }),
    );

  it.each<[string, Float64Array]>([
    ['strewn evenly', some(800, random, () => 0.04 * random())],
    [
      'crowded in a corner, with large ones over them',
      some(
        600,
        () => random() ** 9,
        () => (random() < 0.02 ? 1 : 1e-3 * random()),
      ),
    ],
    [
      'on a lattice, sharing sides',
      some(
        500,
        () => Math.floor(20 * random()) / 20,
        () => 0.05,
      ),
    ],
    [
      'all in one place',
      some(
        60,
        () => 0.5,
        () => 0.1,
      ),
    ],
    ['thin and tall', some(500, random, () => random()).map((x, i) => (i % 2 ? x : x / 1000))],
    ['on one line', some(200, random, () => 0.01).map((x, i) => (i % 2 ? 0.25 * (i % 4 === 3 ? 1 : 0) : x))],
    ['of no size', some(50, random, () => 0)],
  ])('are found each once: %s', (_, boxes) => {
    expect(byGrid(boxes)).toEqual(byEach(boxes).sort());
  });

  it('end when enough were found', () => {
    let count = 0;
    meetingBoxes(
      some(300, random, () => 0.5),
      () => ++count < 7,
    );
    expect(count).toBe(7);
  });
});
