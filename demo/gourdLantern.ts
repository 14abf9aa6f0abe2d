import { type Part, tubeFaces } from './parts.ts';

/** A lantern made of a dried gourd: ribbed body, stem, a bent handle tube, and a ring of studs round the waist. */
export function gourdLantern(): Part[] {
  const studs = Array.from({ length: 14 }, (_, k) => stud(k, (2 * Math.PI * k) / 14));
  return [body(), stem(), handle(), ...studs];
}

/** Outline of the body from the bottom up: radius and height. */
const OUTLINE: readonly (readonly [number, number])[] = [
  [0.35, 0.02],
  [0.8, 0.05],
  [1.2, 0.25],
  [1.45, 0.62],
  [1.5, 1.05],
  [1.34, 1.48],
  [1.02, 1.82],
  [0.78, 2.1],
  [0.74, 2.32],
  [0.86, 2.56],
  [0.95, 2.84],
  [0.88, 3.12],
  [0.62, 3.36],
  [0.28, 3.46],
];

function body(): Part {
  const around = 48;
  const smooth = refine(OUTLINE, 3);
  const vertices: Part['vertices'] = [];
  for (const [radius, height] of smooth) {
    for (let j = 0; j < around; j++) {
      const angle = (2 * Math.PI * j) / around;
      const rib = 1 + 0.045 * Math.cos(8 * angle) * Math.min(1, radius);
      vertices.push([radius * rib * Math.cos(angle), height, radius * rib * Math.sin(angle)]);
    }
  }
  const faces = tubeFaces(smooth.length, around);
  faces.push(
    Array.from({ length: around }, (_, j) => j),
    Array.from({ length: around }, (_, j) => smooth.length * around - 1 - j),
  );
  return { name: 'Body', group: 'gourd', material: 'Rind', vertices, faces };
}

/** Catmull–Rom points between the given ones. */
function refine(points: typeof OUTLINE, steps: number): [number, number][] {
  const at = (i: number) => points[Math.max(0, Math.min(points.length - 1, i))];
  const out: [number, number][] = [];
  for (let i = 0; i + 1 < points.length; i++) {
    for (let s = 0; s < steps; s++) {
      const t = s / steps;
      out.push(
        [0, 1].map((k) => {
          const [a, b, c, d] = [at(i - 1)[k], at(i)[k], at(i + 1)[k], at(i + 2)[k]];
          return (
            0.5 *
            (2 * b + (c - a) * t + (2 * a - 5 * b + 4 * c - d) * t * t + (3 * b - a - 3 * c + d) * t ** 3)
          );
        }) as [number, number],
      );
    }
  }
  out.push([...points[points.length - 1]]);
  return out;
}

/** A tube along a path in the plane z = 0, closed by a cap at each end. */
function tube(
  name: string,
  group: string,
  material: string,
  rings: number,
  around: number,
  path: (t: number) => readonly [x: number, y: number, radius: number],
): Part {
  const vertices: Part['vertices'] = [];
  for (let i = 0; i < rings; i++) {
    const t = i / (rings - 1);
    const [x, y, radius] = path(t);
    const [x0, y0] = path(Math.max(0, t - 1e-4));
    const [x1, y1] = path(Math.min(1, t + 1e-4));
    const length = Math.hypot(x1 - x0, y1 - y0);
    const [nx, ny] = [(y1 - y0) / length, -(x1 - x0) / length];
    for (let j = 0; j < around; j++) {
      const angle = (2 * Math.PI * j) / around;
      const [c, s] = [radius * Math.cos(angle), radius * Math.sin(angle)];
      vertices.push([x + nx * c, y + ny * c, s]);
    }
  }
  const faces = tubeFaces(rings, around);
  faces.push(
    Array.from({ length: around }, (_, j) => j),
    Array.from({ length: around }, (_, j) => rings * around - 1 - j),
  );
  return { name, group, material, vertices, faces };
}

const stem = (): Part =>
  tube('Stem', 'gourd', 'Stem', 18, 12, (t) => [
    0.5 * Math.sin(1.9 * t) * t,
    3.4 + 0.95 * t - 0.12 * t * t,
    0.24 - 0.13 * t + 0.05 * Math.max(0, t - 0.8),
  ]);

const handle = (): Part =>
  tube('Handle', 'fittings', 'Brass', 64, 14, (t) => {
    const angle = Math.PI * (1.06 - 1.12 * t);
    const reach = 0.8 + 0.55 * Math.sqrt(Math.max(0, Math.sin(angle)));
    return [reach * Math.cos(angle), 2.72 + 2.15 * Math.sin(angle), 0.075];
  });

/** A round-headed stud set into the waist. */
function stud(k: number, turn: number): Part {
  const [around, rings] = [12, 4];
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const place = (out: number, up: number, along: number): [number, number, number] => {
    const radius = 0.74 + out;
    return [c * radius - s * along, 2.22 + up, s * radius + c * along];
  };
  const vertices: Part['vertices'] = [];
  for (let i = 0; i < rings; i++) {
    const rise = (0.5 * Math.PI * i) / rings;
    for (let j = 0; j < around; j++) {
      const angle = (2 * Math.PI * j) / around;
      const r = 0.095 * Math.cos(rise);
      vertices.push(place(0.095 * Math.sin(rise), r * Math.sin(angle), r * Math.cos(angle)));
    }
  }
  const tip = vertices.push(place(0.095, 0, 0)) - 1;
  const faces = tubeFaces(rings, around);
  const last = (rings - 1) * around;
  for (let j = 0; j < around; j++) faces.push([last + j, tip, last + ((j + 1) % around)]);
  return {
    name: `Stud ${String(k + 1).padStart(2, '0')}`,
    group: 'fittings',
    material: 'Brass',
    vertices,
    faces,
  };
}
