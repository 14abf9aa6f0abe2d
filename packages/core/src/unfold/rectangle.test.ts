import { describe, expect, it } from 'vitest';
import { openDocument, shellOf, shellsOf, shellUv, topologyOf } from '../document/document.ts';
import { measureStretch } from '../measure/stretch.ts';
import { findEdge } from '../mesh/connectivity.ts';
import { type Mesh, meshFromPolygons } from '../mesh/mesh.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { after } from '../testing/acts.ts';
import { sheet, torus } from '../testing/shapes.ts';
import { seeded } from '../testing/wander.ts';

/** A pipe of triangles without rings or rows: radius 1, height 6, its points shaken along the surface. */
function pipe(sides = 16, rows = 14): Mesh {
  const random = seeded(3);
  const points: number[][] = [];
  for (let i = 0; i <= rows; i++)
    for (let j = 0; j < sides; j++) {
      const inner = i > 0 && i < rows;
      const a = (2 * Math.PI * (j + (inner ? 0.5 * (random() - 0.5) : 0))) / sides;
      points.push([Math.sin(a), (6 * (i + (inner ? 0.4 * (random() - 0.5) : 0))) / rows, Math.cos(a)]);
    }
  const faces: number[][] = [];
  for (let i = 0; i < rows; i++)
    for (let j = 0; j < sides; j++) {
      const [a, b] = [i * sides + j, i * sides + ((j + 1) % sides)];
      if (random() < 0.5) faces.push([a, b, b + sides], [a, b + sides, a + sides]);
      else faces.push([a, b, a + sides], [b, b + sides, a + sides]);
    }
  return meshFromPolygons(points, faces);
}

const open = (mesh: Mesh) => openDocument(modelFromMesh('Strip', mesh));
const lengthwise = (mesh: Mesh, sides = 16, rows = 14) => {
  const { connectivity } = topologyOf(open(mesh).model);
  return Array.from({ length: rows }, (_, i) => findEdge(connectivity, i * sides, (i + 1) * sides));
};
const strip = (shells: 'all' | number[] = 'all') => ({ operation: 'straight-strip', params: { shells } });

describe('strips of whatever faces', () => {
  it('of a pipe of triangles cut lengthwise are circumference × length (common practice), without a flip', async () => {
    const mesh = pipe();
    const document = await after(
      open(mesh),
      { operation: 'cut', params: { edges: lengthwise(mesh) } },
      strip(),
    );
    const shell = shellOf(document, 0);
    const uv = shellUv(document, shell) as Float64Array;
    const us = uv.filter((_, i) => !(i & 1));
    const vs = uv.filter((_, i) => i & 1);
    const [wide, high] = [Math.max(...us) - Math.min(...us), Math.max(...vs) - Math.min(...vs)];
    const circumference = 16 * 2 * Math.sin(Math.PI / 16);
    // Up on the pipe is up on the strip; the sides along the shaken cut are a little longer than the pipe.
    expect(high / wide / (6 / circumference)).toBeGreaterThan(0.99);
    expect(high / wide / (6 / circumference)).toBeLessThan(1.1);
    const { flipped, collapsed, l2 } = measureStretch(shell, uv);
    expect(flipped + collapsed).toBe(0);
    expect(l2).toBeLessThan(1.1);
    // All of the border lies on the four sides, to the last digit.
    const onSide = [...uv.keys()].filter(
      (i) => !(i & 1) && [Math.min(...us), Math.max(...us)].includes(uv[i]),
    );
    expect(onSide.length).toBeGreaterThan(2 * 14);
  });

  it('of a belt on a hill have the corners of the belt', async () => {
    const hill = sheet(3, 20, (i, j) => [j, Math.sin(j / 3), i + 0.2 * Math.sin(j)]);
    const triangles = meshFromPolygons(
      Array.from({ length: hill.positions.length / 3 }, (_, v) => [
        ...hill.positions.subarray(3 * v, 3 * v + 3),
      ]),
      Array.from({ length: 60 }, (_, f) => [...hill.cornerVertex.subarray(4 * f, 4 * f + 4)]).flatMap(
        ([a, b, c, d]) => [
          [a, b, c],
          [a, c, d],
        ],
      ),
    );
    const document = await after(open(triangles), strip());
    const shell = shellOf(document, 0);
    const uv = shellUv(document, shell) as Float64Array;
    const box = (k: number) => {
      const list = uv.filter((_, i) => (i & 1) === k);
      return [Math.min(...list), Math.max(...list)];
    };
    const corner = (vertex: number) =>
      shell.vertexCorner.findIndex((c) => triangles.cornerVertex[c] === vertex);
    for (const v of [0, 20, 63, 83].map(corner))
      for (const k of [0, 1]) expect(box(k).some((end) => Math.abs(uv[2 * v + k] - end) < 1e-12)).toBe(true);
    expect(measureStretch(shell, uv).flipped).toBe(0);
  });

  it('lie at one scale, several at once; one that is none is left, with a sentence', async () => {
    const mesh = pipe();
    const tube = await after(open(mesh));
    await expect(after(tube, strip())).rejects.toThrow(/is a tube: cut it lengthwise/);
    const closed = open(torus(8, 6));
    await expect(after(closed, strip())).rejects.toThrow(/is closed: cut off its caps/);
    const disc = open(
      meshFromPolygons(
        [
          [0, 0, 0],
          ...Array.from({ length: 24 }, (_, i) => [
            Math.cos((i * Math.PI) / 12),
            Math.sin((i * Math.PI) / 12),
            0,
          ]),
        ],
        Array.from({ length: 24 }, (_, i) => [0, i + 1, ((i + 1) % 24) + 1]),
      ),
    );
    await expect(after(disc, strip())).rejects.toThrow(/no strip: its border has no corner/);
    // A ring cut out of the pipe: two tubes of which one is opened.
    const { connectivity } = topologyOf(tube.model);
    const ring = Array.from({ length: 16 }, (_, j) =>
      findEdge(connectivity, 7 * 16 + j, 7 * 16 + ((j + 1) % 16)),
    );
    const half = lengthwise(mesh).slice(0, 7);
    const cut = await after(tube, { operation: 'cut', params: { edges: [...ring, ...half] } });
    expect(shellsOf(cut).shellCount).toBe(2);
    const laid = await after(cut, strip());
    expect(laid.uvSets[0].uv.some(Number.isNaN)).toBe(true);
    const both = await after(
      cut,
      { operation: 'cut', params: { edges: lengthwise(mesh).slice(7) } },
      strip(),
    );
    const scale = [0, 1].map((s) => {
      const shell = shellOf(both, s);
      const { area, uvArea } = measureStretch(shell, shellUv(both, shell) as Float64Array);
      return uvArea / area;
    });
    expect(scale[0] / scale[1]).toBeCloseTo(1, 1);
  });
});
