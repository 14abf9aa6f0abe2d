import { meetingBoxes } from '../packages/core/src/measure/meetingBoxes.ts';
import { overlappingTriangles } from '../packages/core/src/measure/overlap.ts';
import { count, growth, ratio, seconds, type Table, time } from './table.ts';

/** A flat sheet of about so many triangles, crumpled without any overlap. */
function sheet(triangles: number): Float64Array {
  const n = Math.round(Math.sqrt(triangles / 2));
  const at = (i: number, j: number) => [
    (i + 0.2 * Math.sin(3.3 * i + j)) / n,
    (j + 0.2 * Math.cos(i - 2.1 * j)) / n,
  ];
  const uv = new Float64Array(12 * n * n);
  for (let i = 0, k = 0; i < n; i++)
    for (let j = 0; j < n; j++, k += 12) {
      const [a, b, c, d] = [at(i, j), at(i + 1, j), at(i + 1, j + 1), at(i, j + 1)];
      uv.set([...a, ...b, ...c, ...a, ...c, ...d], k);
    }
  return uv;
}

function boxesOf(uv: Float64Array): Float64Array {
  const boxes = new Float64Array((uv.length * 2) / 3);
  for (let t = 0; t < uv.length / 6; t++) {
    const [a, b, c, d, e, f] = uv.subarray(6 * t, 6 * t + 6);
    boxes.set([Math.min(a, c, e), Math.min(b, d, f), Math.max(a, c, e), Math.max(b, d, f)], 4 * t);
  }
  return boxes;
}

/** Pairs of boxes that meet, by a plain sweep from left to right (Bentley and Ottmann's order, without a tree). */
function sweep(boxes: Float64Array): number {
  const order = Uint32Array.from({ length: boxes.length / 4 }, (_, i) => i).sort(
    (a, b) => boxes[4 * a] - boxes[4 * b],
  );
  let active: number[] = [];
  let pairs = 0;
  for (const i of order) {
    active = active.filter((j) => boxes[4 * j + 2] > boxes[4 * i]);
    for (const j of active)
      if (boxes[4 * j + 1] < boxes[4 * i + 3] && boxes[4 * i + 1] < boxes[4 * j + 3]) pairs++;
    active.push(i);
  }
  return pairs;
}

/** Looking for overlaps in a sheet that has none. */
export function overlaps(large: boolean): Table {
  let last: { size: number; seconds: number } | undefined;
  const rows = [2_000, 20_000, 100_000, 500_000, ...(large ? [1_000_000] : [])].map((wanted) => {
    const uv = sheet(wanted);
    const boxes = boxesOf(uv);
    const ours = time(3, () => overlappingTriangles(uv));
    // The first tenth, as one shell of ten that has been moved.
    const asked = new Uint8Array(uv.length / 6).fill(1, 0, uv.length / 60);
    const moved = time(3, () => overlappingTriangles(uv, { asked }));
    const grid = time(3, () => meetingBoxes(boxes, () => true));
    const plain = wanted <= 100_000 ? time(1, () => sweep(boxes)) : undefined;
    const here = { size: uv.length / 6, seconds: ours };
    const grown = last ? growth(last, here).toFixed(2) : '';
    last = here;
    return [
      count(here.size),
      seconds(ours),
      seconds(moved),
      seconds(grid),
      plain ? ratio(grid, plain) : '',
      grown,
    ];
  });
  return {
    title: 'Overlaps',
    columns: [
      'triangles',
      'overlaps, s',
      'after a tenth moved',
      'boxes that meet, s',
      'of a plain sweep',
      'growth',
    ],
    rows,
  };
}
