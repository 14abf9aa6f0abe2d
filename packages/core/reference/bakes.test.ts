import { decode } from 'fast-png';
import { describe, expect, it } from 'vitest';
import type { BakeMapName } from '../src/bake/maps.ts';
import { type BakeSettings, bakeMap } from '../src/derived/bakeMap.ts';
import { type HemDocument, openDocument } from '../src/document/document.ts';
import { localJobs } from '../src/jobs/index.ts';
import { type Mesh, meshFromPolygons } from '../src/mesh/mesh.ts';
import { modelFromMesh } from '../src/mesh/model.ts';
import { unattended } from '../src/progress.ts';
import { FIRST_TILE } from '../src/surface/tiles.ts';

type Point = readonly number[];

/** A document with UVs by corner; faces for which there are none lie nowhere. */
function withUv(mesh: Mesh, uvOf: (face: number, vertex: number) => Point | undefined): HemDocument {
  const { faceStart, cornerVertex } = mesh;
  const uv = new Float64Array(2 * cornerVertex.length).fill(Number.NaN);
  for (let f = 0; f + 1 < faceStart.length; f++)
    for (let c = faceStart[f]; c < faceStart[f + 1]; c++) uv.set(uvOf(f, cornerVertex[c]) ?? [], 2 * c);
  return openDocument({ ...modelFromMesh('Model', mesh), uvSets: [{ name: 'UV', uv }] });
}

const SETTINGS: Omit<BakeSettings, 'map'> = {
  tile: FIRST_TILE,
  height: 32,
  samples: 1,
  rays: 1024,
  bleed: 0,
};

async function baked(document: HemDocument, map: BakeMapName, settings: Partial<BakeSettings> = {}) {
  const context = { ...unattended, jobs: localJobs };
  const { bytes, ...told } = await bakeMap(document, { ...SETTINGS, map, ...settings }, context);
  const { data, width, height, channels, depth } = decode(bytes);
  const most = depth === 16 ? 65_535 : 255;
  return {
    ...told,
    bytes,
    width,
    height,
    /** Values 0 to 1 of a texel, counted from the top left. */
    at: (x: number, y: number): number[] =>
      Array.from({ length: channels }, (_, k) => data[channels * (y * width + x) + k] / most),
  };
}

/** A rectangle by its corners, anticlockwise as seen from its front. */
const rectangles = (...corners: readonly (readonly Point[])[]): Mesh =>
  meshFromPolygons(
    corners.flat(),
    corners.map((_, i) => [0, 1, 2, 3].map((k) => 4 * i + k)),
  );

/** The floor from x = 0 to 2 with UVs over the whole tile, and long walls on some of its sides. */
const LONG = 20;
const floor = [
  [0, 0, 0.1],
  [2, 0, 0.1],
  [2, 0, -0.1],
  [0, 0, -0.1],
];
const wallAt = (x: number, high: number): Point[] => [
  [x, 0, LONG],
  [x, 0, -LONG],
  [x, high, -LONG],
  [x, high, LONG],
];
const FLAT = [
  [0, 0],
  [1, 0],
  [1, 1],
  [0, 1],
];
const onFloor = (...walls: readonly (readonly Point[])[]): HemDocument =>
  withUv(rectangles(floor, ...walls), (f, v) => (f === 0 ? FLAT[v] : undefined));

describe('maps for painters, against closed forms', () => {
  // Factor from a small element to an infinitely long wall that stands upright beside it, h high and d away: (1 − d / √(d² + h²)) / 2
  // (Howell, A Catalog of Radiation Heat Transfer Configuration Factors; common practice, from memory).
  const factor = (d: number, h: number): number => (1 - d / Math.hypot(d, h)) / 2;

  it('ambient occlusion of a corner', async () => {
    const { at, width } = await baked(onFloor(wallAt(0, 1)), 'ambient-occlusion');
    for (let x = 0; x < width; x++) {
      const d = (2 * (x + 0.5)) / width;
      expect(Math.abs(at(x, 16)[0] - (1 - factor(d, 1)))).toBeLessThan(0.012);
    }
  });

  it('ambient occlusion of a slit', async () => {
    const { at, width } = await baked(onFloor(wallAt(0, 3), wallAt(2, 1.5)), 'ambient-occlusion');
    for (let x = 0; x < width; x++) {
      const d = (2 * (x + 0.5)) / width;
      expect(Math.abs(at(x, 16)[0] - (1 - factor(d, 3) - factor(2 - d, 1.5)))).toBeLessThan(0.015);
    }
  });

  it('exposure beside a wall: the angle under which it is seen is hidden, of a half turn', async () => {
    const { at, width } = await baked(onFloor(wallAt(0, 1)), 'exposure');
    for (let x = 0; x < width; x++) {
      const d = (2 * (x + 0.5)) / width;
      expect(Math.abs(at(x, 16)[0] - (1 - Math.atan(1 / d) / Math.PI))).toBeLessThan(0.012);
    }
  });

  it('hides nothing farther off than the reach', async () => {
    const document = onFloor(wallAt(0, 1));
    const near = await baked(document, 'ambient-occlusion', { reach: 0.01 });
    expect(near.at(31, 16)[0]).toBe(1);
    expect(near.at(0, 16)[0]).toBeLessThan(0.9);
  });

  it('thickness of a slab: twice the slab by cosine, but for what is cut off', async () => {
    // Mean of min(T / c, R) over directions whose cosines c are weighed by 2 c: 2 T − T² / R.
    const thick = 0.4;
    const wide = 4;
    const face = (y: number): Point[] => [
      [-wide, y, wide],
      [wide, y, wide],
      [wide, y, -wide],
      [-wide, y, -wide],
    ];
    const slab = withUv(rectangles(face(0), face(-thick).reverse()), (f, v) =>
      f === 0 ? FLAT[v] : undefined,
    );
    const { at } = await baked(slab, 'thickness', { reach: 0.2 });
    const reach = 0.2 * Math.hypot(2 * wide, 2 * wide, thick);
    const expected = (2 * thick - thick ** 2 / reach) / reach;
    expect(Math.abs(at(16, 16)[0] - expected)).toBeLessThan(0.01);
  });
});

/** A ball of radius 2 about (1, 2, 3), by rings; its UVs go round it once, over the whole tile. */
function ball(rings: number, sectors: number, radius = 2): HemDocument {
  const points: Point[] = [];
  for (let i = 0; i <= rings; i++)
    for (let j = 0; j < sectors; j++) {
      const [a, b] = [(Math.PI * (i + 0.5)) / (rings + 1), (2 * Math.PI * j) / sectors];
      const r = radius * Math.sin(a);
      points.push([1 + r * Math.sin(b), 2 + radius * Math.cos(a), 3 + r * Math.cos(b)]);
    }
  const faces: number[][] = [];
  for (let i = 0; i < rings; i++)
    for (let j = 0; j < sectors; j++) {
      const next = (j + 1) % sectors;
      faces.push([i * sectors + j, (i + 1) * sectors + j, (i + 1) * sectors + next, i * sectors + next]);
    }
  return withUv(meshFromPolygons(points, faces), (f, v) => {
    const [i, j] = [Math.floor(v / sectors), v % sectors];
    const last = f % sectors === sectors - 1 && j === 0;
    return [(last ? sectors : j) / sectors, 1 - i / rings];
  });
}

describe('maps of a ball', () => {
  it('curvature is one over its radius, bulging', async () => {
    const document = ball(48, 96);
    const { at } = await baked(document, 'curvature', { height: 64 });
    const size = Math.hypot(4, 4, 4);
    // White is a ball of a twentieth of the size.
    const expected = 0.5 + (0.5 * 0.05 * size) / 2;
    for (const y of [8, 32, 56])
      for (const x of [3, 31, 60]) expect(Math.abs(at(x, y)[0] - expected)).toBeLessThan(0.002);
  });

  it('normals lead from the middle to positions', async () => {
    const document = ball(48, 96);
    const [normals, positions] = await Promise.all(
      (['normal', 'position'] as const).map((map) => baked(document, map, { height: 64 })),
    );
    for (const y of [5, 20, 32, 60])
      for (const x of [0, 17, 40, 63]) {
        // Positions are told from the low corner of the box, in its longest side: 4, but for the ends that are cut off.
        const point = positions
          .at(x, y)
          .map((p, k) => 4 * p + (k === 1 ? 2 - 2 * Math.cos(Math.PI / 98) : [-1, 0, 1][k]));
        const outward = point.map((p, k) => (p - [1, 2, 3][k]) / 2);
        normals.at(x, y).forEach((n, k) => {
          expect(Math.abs(2 * n - 1 - outward[k])).toBeLessThan(0.01);
        });
      }
  });

  it('are told by the header of the file as what they are: 16 bits, grey or colour (PNG, W3C, 11.2.2)', async () => {
    const document = ball(8, 16);
    for (const [map, depth, colour] of [
      ['curvature', 16, 0],
      ['normal', 16, 2],
      ['shell-ids', 8, 2],
    ] as const) {
      const { bytes } = await baked(document, map);
      expect([...bytes.subarray(0, 8)]).toEqual([137, 80, 78, 71, 13, 10, 26, 10]);
      expect([bytes[24], bytes[25]]).toEqual([depth, colour]);
    }
  });
});

describe('maps from another model', () => {
  it('are those of the dense one, on the UVs of the light one', async () => {
    const [light, dense] = [ball(6, 12), ball(64, 128)];
    const from = { document: dense, distance: 0.1 };
    const [own, theirs] = [
      await baked(light, 'normal', { height: 64 }),
      await baked(light, 'normal', { height: 64, from }),
    ];
    expect(theirs.missed).toBe(0);
    const length = (rgb: readonly number[]) => Math.hypot(...rgb.map((x) => 2 * x - 1));
    // Both are unit vectors; only one of them is what the dense ball has there.
    const positions = await baked(light, 'position', { height: 64, from });
    let [worst, worstOwn] = [0, 0];
    for (let y = 4; y < 60; y += 7)
      for (let x = 1; x < 64; x += 6) {
        expect(length(theirs.at(x, y))).toBeCloseTo(1, 2);
        const point = positions
          .at(x, y)
          .map((p, k) => 4 * p + (k === 1 ? 2 - 2 * Math.cos(Math.PI / 130) : [-1, 0, 1][k]));
        const outward = point.map((p, k) => (p - [1, 2, 3][k]) / 2);
        const off = (rgb: readonly number[]) => Math.hypot(...rgb.map((n, k) => 2 * n - 1 - outward[k]));
        worst = Math.max(worst, off(theirs.at(x, y)));
        worstOwn = Math.max(worstOwn, off(own.at(x, y)));
      }
    expect(worst).toBeLessThan(0.03);
    expect(worstOwn).toBeGreaterThan(worst);
  });

  it('tells where the other is not met', async () => {
    const { missed, covered } = await baked(ball(6, 12), 'normal', {
      from: { document: ball(16, 32, 1), distance: 0.01 },
    });
    expect(covered).toBe(0);
    expect(missed).toBe(32 * 32);
  });

  it('says so when nothing lies in the tile', async () => {
    const document = withUv(rectangles(floor), () => undefined);
    await expect(baked(document, 'position')).rejects.toThrow(
      'No shell covers the middle of a pixel of tile 1001',
    );
  });
});
