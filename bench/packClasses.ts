import earcut from 'earcut';

/**
 * Classes of shells that a packer meets, each hard in a way of its own: made by rule, the same every time.
 */

/** One shell, flat. */
export interface ClassShell {
  readonly triangles: Uint32Array;
  readonly uv: Float64Array;
}

type Point = readonly [number, number];

const random = (seed: number) => () => {
  seed = (seed + 0x6d2b79f5) | 0;
  let t = Math.imul(seed ^ (seed >>> 15), 1 | seed);
  t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
  return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
};

function filled(outline: readonly Point[], ...holes: (readonly Point[])[]): ClassShell {
  const points = [outline, ...holes].flat();
  let at = outline.length;
  const starts = holes.map((hole) => {
    at += hole.length;
    return at - hole.length;
  });
  return {
    triangles: Uint32Array.from(earcut(points.flat(), starts)),
    uv: Float64Array.from(points.flat()),
  };
}

const turnedBy = (points: readonly Point[], angle: number): Point[] =>
  points.map(([x, y]) => [
    Math.cos(angle) * x - Math.sin(angle) * y,
    Math.sin(angle) * x + Math.cos(angle) * y,
  ]);

/** Pieces of a square with wavy sides, shuffled and turned by quarters: together they fill it. */
function jigsaw(): ClassShell[] {
  const r = random(1);
  const n = 6;
  // A wave a side, one that neighbours share; none at the rim.
  const waves = new Map<string, number>();
  const wave = (key: string, rim: boolean) => {
    if (!waves.has(key)) waves.set(key, rim ? 0 : (r() - 0.5) * 0.6);
    return waves.get(key) as number;
  };
  const pieces: ClassShell[] = [];
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++) {
      const along = (a: Point, b: Point, key: string, rim: boolean, flip: number): Point[] =>
        Array.from({ length: 12 }, (_, k) => {
          const t = k / 12;
          const out = flip * wave(key, rim) * Math.sin(Math.PI * t) ** 2;
          return [
            a[0] + t * (b[0] - a[0]) + out * (b[1] - a[1]),
            a[1] + t * (b[1] - a[1]) - out * (b[0] - a[0]),
          ];
        });
      const outline = [
        ...along([i, j], [i + 1, j], `h${i},${j}`, j === 0, 1),
        ...along([i + 1, j], [i + 1, j + 1], `v${i + 1},${j}`, i === n - 1, 1),
        ...along([i + 1, j + 1], [i, j + 1], `h${i},${j + 1}`, j === n - 1, -1),
        ...along([i, j + 1], [i, j], `v${i},${j}`, i === 0, -1),
      ];
      pieces.push(filled(turnedBy(outline, (Math.floor(r() * 4) * Math.PI) / 2)));
    }
  return pieces;
}

function blobs(): ClassShell[] {
  const r = random(2);
  return Array.from({ length: 60 }, () => {
    const size = 0.4 + r() ** 2 * 1.6;
    const waves = [2, 3, 4, 5].map((k) => [k, r() * 0.25, r() * 7] as const);
    return filled(
      Array.from({ length: 48 }, (_, i): Point => {
        const a = (2 * Math.PI * i) / 48;
        const d = size * (1 + waves.reduce((sum, [k, w, p]) => sum + w * Math.cos(k * a + p), 0) / 1.5);
        return [d * Math.cos(a), d * Math.sin(a)];
      }),
    );
  });
}

const circle = (radius: number, n = 40): Point[] =>
  Array.from(
    { length: n },
    (_, i): Point => [radius * Math.cos((2 * Math.PI * i) / n), radius * Math.sin((2 * Math.PI * i) / n)],
  );

function rings(): ClassShell[] {
  const r = random(3);
  const wide = Array.from({ length: 9 }, () => filled(circle(1.5), circle(1.25).reverse()));
  const small = Array.from({ length: 36 }, () => {
    const [w, h] = [0.3 + 0.5 * r(), 0.3 + 0.5 * r()];
    return filled(turnedBy(circle(1, 20), r() * 3).map(([x, y]): Point => [x * w, y * h]));
  });
  return [...wide, ...small];
}

/** A band along an arc, with round ends. */
function band(length: number, width: number, bend: number): Point[] {
  const n = 24;
  const radius = length / bend;
  const side = (out: number): Point[] =>
    Array.from({ length: n + 1 }, (_, i): Point => {
      const a = bend * (i / n - 0.5);
      return [(radius + out) * Math.sin(a), (radius + out) * Math.cos(a) - radius];
    });
  return [...side(width / 2).reverse(), ...side(-width / 2)];
}

function limbs(): ClassShell[] {
  const r = random(4);
  return Array.from({ length: 24 }, () =>
    filled(turnedBy(band(3 + 3 * r(), 0.5 + 0.6 * r(), 0.6 + 2 * r()), r() * 6)),
  );
}

function angles(): ClassShell[] {
  const r = random(5);
  return Array.from({ length: 40 }, (_, i) => {
    const [w, h, t] = [1 + r() * 2, 1 + r() * 2, 0.3 + 0.3 * r()];
    const outline: Point[] =
      i % 2
        ? [
            [0, 0],
            [w, 0],
            [w, t],
            [t, t],
            [t, h],
            [0, h],
          ]
        : [
            [0, 0],
            [w, 0],
            [w, h],
            [w - t, h],
            [w - t, t],
            [t, t],
            [t, h],
            [0, h],
          ];
    return filled(turnedBy(outline, (Math.floor(r() * 4) * Math.PI) / 2));
  });
}

function scales(count = 400): ClassShell[] {
  const r = random(6);
  return Array.from({ length: count }, () => {
    const [w, h] = [0.7 + 0.6 * r(), 1 + 0.8 * r()];
    const outline = circle(1, 18).map(([x, y]): Point => [w * x * (y < 0 ? 1 + 0.5 * y : 1), h * y]);
    return filled(turnedBy(outline, r() * 6));
  });
}

export const packClasses: Readonly<Record<string, () => ClassShell[]>> = {
  jigsaw,
  blobs,
  rings,
  limbs,
  angles,
  scales,
};

/** Thousands of small shells. */
export const thousands = (): ClassShell[] => scales(5000);
