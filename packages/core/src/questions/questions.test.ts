import { Matrix4, PerspectiveCamera, Vector3 } from 'three';
import { beforeAll, describe, expect, it } from 'vitest';
import { type HemDocument, openDocument, shellOf, shellsOf, topologyOf } from '../document/document.ts';
import { shellBoxes } from '../document/layout.ts';
import { findEdge } from '../mesh/connectivity.ts';
import { meshFromPolygons } from '../mesh/mesh.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { request } from '../operations/catalogue.ts';
import { unattended } from '../progress.ts';
import { meshOfShell } from '../surface/cutShell.ts';
import { FIRST_TILE } from '../surface/tiles.ts';
import type { UvBox } from '../surface/uvBox.ts';
import { after } from '../testing/acts.ts';
import { handedOver } from '../testing/handedOver.ts';
import { cube, torus, tube } from '../testing/shapes.ts';
import { type AskedOf, answerQuestion, QUESTIONS, type QuestionName } from './index.ts';

let bare: HemDocument;
let cut: HemDocument;

const context = { ...unattended, jobs: handedOver };
const ask = <N extends QuestionName>(document: HemDocument, name: N, params: AskedOf<N>) =>
  answerQuestion(document, name, params, context);

/** A cube with its lid (z = 1) cut off, unfolded. */
beforeAll(async () => {
  bare = openDocument(modelFromMesh('Cube', cube()));
  const { connectivity } = topologyOf(bare.model);
  const lid = [
    [4, 5],
    [5, 6],
    [6, 7],
    [7, 4],
  ].map(([a, b]) => findEdge(connectivity, a, b));
  cut = await after(bare, request('cut', { edges: lid }), request('unfold', {}));
});

describe('picking', () => {
  it('meets the face in front, its nearest edge and its shell', async () => {
    const found = await ask(cut, 'pick-model', { origin: [0.9, 0, 5], direction: [0, 0, -1] });
    const { connectivity } = topologyOf(cut.model);
    expect(found?.place).toEqual([expect.closeTo(0.9, 6), 0, 1]);
    expect(found?.edge).toBe(findEdge(connectivity, 5, 6));
    expect(found?.shell).toBe(shellsOf(cut).faceShell[1]);
    expect(await ask(cut, 'pick-model', { origin: [5, 5, 5], direction: [0, 0, -1] })).toBeUndefined();
  });

  it('on the Board meets the shell that lies there', async () => {
    const { vertexCorner } = shellOf(cut, 1);
    const { uv } = cut.uvSets[0];
    const [u, v] = [0, 1].map(
      (k) => [...vertexCorner].reduce((sum, c) => sum + uv[2 * c + k], 0) / vertexCorner.length,
    );
    expect((await ask(cut, 'pick-board', { u, v }))?.shell).toBe(1);
    expect(await ask(cut, 'pick-board', { u: 40, v: 40 })).toBeUndefined();
    expect(await ask(bare, 'pick-board', { u: 0.5, v: 0.5 })).toBeUndefined();
  });

  it('passes over what is hidden', async () => {
    const hidden = await after(cut, request('hide', {}));
    const ray = { origin: [0, 0, 5], direction: [0, 0, -1] } as const;
    expect(await ask(cut, 'pick-model', ray)).toBeDefined();
    expect(await ask(hidden, 'pick-model', ray)).toBeUndefined();
  });

  it('boxes visible edges, faces and shells only, or all', async () => {
    const camera = new PerspectiveCamera(40, 1, 0.1, 100);
    camera.position.set(3, 4, 6);
    camera.lookAt(new Vector3());
    camera.updateMatrixWorld();
    const matrix = new Matrix4()
      .multiplyMatrices(camera.projectionMatrix, camera.matrixWorldInverse)
      .toArray();
    const query = { matrix, rectangle: [-1, -1, 1, 1], eye: [3, 4, 6] } as const;
    const inBox = async (target: 'edges' | 'faces' | 'shells', visibleOnly: boolean) =>
      (await ask(cut, 'in-box', { ...query, target, visibleOnly })).length;
    // A corner of a cube shows three faces: nine of its twelve edges.
    expect(await inBox('edges', true)).toBe(9);
    expect(await inBox('edges', false)).toBe(12);
    expect(await inBox('faces', true)).toBe(3);
    expect(await inBox('faces', false)).toBe(6);
    expect(await inBox('shells', false)).toBe(2);
    const corner = await ask(cut, 'in-box', {
      ...query,
      rectangle: [0.9, 0.9, 1, 1],
      target: 'edges',
      visibleOnly: false,
    });
    expect(corner).toEqual([]);
  });
});

describe('questions', () => {
  it('about loops, overlaps, health and pictures are answered', async () => {
    const ring = openDocument(modelFromMesh('Torus', torus(12, 8)));
    const loop = await ask(ring, 'edge-loop', { edge: 3 });
    expect(loop.what).toBe('loop');
    expect([8, 12]).toContain(loop.edges.length);
    expect((await ask(ring, 'edge-loop', { edge: 1e9 })).edges).toEqual([]);
    // A sleeve of triangles has no loops of quads: a ring is taken.
    const sleeve = openDocument(modelFromMesh('Sleeve', meshOfShell(tube(12, 9, 14))));
    const { connectivity } = topologyOf(sleeve.model);
    const slanted = findEdge(connectivity, 4 * 9, 5 * 9 + 1);
    const round = await ask(sleeve, 'edge-loop', { edge: slanted });
    expect(round).toMatchObject({ what: 'ring', edges: { length: 9 } });
    // Once it is cut, the seam is followed, and a loop ends at it.
    const seam = await after(sleeve, request('cut', { edges: [...round.edges] }));
    const again = await ask(seam, 'edge-loop', { edge: round.edges[0] });
    expect(again.what).toBe('seam');
    expect(new Set(again.edges)).toEqual(new Set(round.edges));
    expect(await ask(cut, 'inspection', {})).toMatchObject({ overlaps: new Uint32Array(0), atLeast: false });
    expect((await ask(cut, 'examination', {})).findings).toEqual([]);
    expect(await ask(cut, 'count-finding', { kind: 'cracks' })).toBe(0);
    await expect(ask(cut, 'count-finding', { kind: 'dust' as never })).rejects.toThrow(/must be one of/);
    const { fileName, bytes } = await ask(cut, 'export', { kind: 'svg' });
    expect(fileName).toBe('Cube-template.svg');
    expect(new TextDecoder().decode(bytes)).toContain('<g id="shell-2">');
  });

  it('are refused with a sentence when they are asked wrongly', async () => {
    for (const { name } of QUESTIONS) {
      await expect(ask(cut, name, { nonsense: 1 } as never)).rejects.toThrow(new RegExp(`^${name}: .*\\.$`));
    }
    await expect(ask(cut, 'weather' as never, {} as never)).rejects.toThrow(/no question “weather”/);
  });
});

describe('pictures', () => {
  const [width, height] = [64, 48];
  const at = (pixels: Uint8ClampedArray, x: number, y: number) => [
    ...pixels.subarray(4 * (y * width + x), 4 * (y * width + x) + 4),
  ];

  it('of a marked face have it in view, through whatever lies before it', async () => {
    const pixels = await ask(bare, 'picture', { width, height, faces: [0] });
    const [red, green] = at(pixels, width / 2, height / 2);
    expect(red).toBeGreaterThan(3 * green);
  });

  it('show the model in the middle on a plain ground, in one tint a shell', async () => {
    const pixels = await ask(cut, 'picture', { width, height });
    expect(at(pixels, 0, 0)).toEqual([233, 227, 214, 255]);
    expect(at(pixels, 32, 24)).not.toEqual(at(pixels, 0, 0));
    expect([...(await ask(bare, 'picture', { width, height }))]).not.toEqual([...pixels]);
  });
});

describe('a rectangle of the Board', () => {
  it('takes the faces and shells that lie in it whole, and edges by either side', async () => {
    const whole = [-1, -1, 2, 2] as const;
    expect(await ask(cut, 'in-board-box', { target: 'faces', rectangle: whole })).toHaveLength(6);
    expect(await ask(cut, 'in-board-box', { target: 'shells', rectangle: whole })).toEqual([0, 1]);
    expect(await ask(cut, 'in-board-box', { target: 'edges', rectangle: whole })).toHaveLength(12);
    // The box of the lid alone: its face, its shell, and its four edges, seams all of them.
    const { mesh } = cut.model;
    const { uv } = cut.uvSets[0];
    const lid = [...shellsOf(cut).faceShell].indexOf(1);
    const corners = Array.from({ length: 4 }, (_, k) => mesh.faceStart[lid] + k);
    const at = (k: number) => corners.map((c) => uv[2 * c + k]);
    const box = [Math.min(...at(0)), Math.min(...at(1)), Math.max(...at(0)), Math.max(...at(1))] as const;
    expect(await ask(cut, 'in-board-box', { target: 'shells', rectangle: box })).toEqual([1]);
    expect(await ask(cut, 'in-board-box', { target: 'faces', rectangle: box })).toEqual([lid]);
    const edges = await ask(cut, 'in-board-box', { target: 'edges', rectangle: box });
    expect(edges.map((e) => cut.seams[e])).toEqual([1, 1, 1, 1]);
    const hidden = await after(cut, request('hide', {}));
    expect(await ask(hidden, 'in-board-box', { target: 'edges', rectangle: whole })).toEqual([]);
    expect(await ask(bare, 'in-board-box', { target: 'faces', rectangle: whole })).toEqual([]);
  });
});

describe('where keys can go', () => {
  it('is to edges at either end and round the faces beside, and to faces across an edge', async () => {
    const { connectivity, mesh } = topologyOf(cut.model);
    for (let e = 0; e < 12; e++) {
      const found = await ask(cut, 'neighbours', { target: 'edges', of: e });
      // Of a cube: two at each end, and the one across each of its two faces.
      expect(new Set(found.map(({ edge }) => edge)).size).toBe(6);
      expect(found.some(({ edge }) => edge === e)).toBe(false);
      for (const { edge, face } of found)
        expect([
          ...connectivity.cornerEdge.subarray(mesh.faceStart[face], mesh.faceStart[face + 1]),
        ]).toContain(edge);
    }
    const beside = await ask(cut, 'neighbours', { target: 'faces', of: 0 });
    expect(new Set(beside.map(({ face }) => face)).size).toBe(4);
    await expect(ask(cut, 'neighbours', { target: 'faces', of: 6 })).rejects.toThrow(
      /nothing with the number 6/,
    );
  });
});

describe('where shells would land', () => {
  it('names those that they would come to lie on, or too near to, and not where they lie already', async () => {
    // Two flat squares of one mesh, a way apart in the tile.
    const mesh = meshFromPolygons(
      [0, 3].flatMap((x) => [
        [x, 0, 0],
        [x + 1, 0, 0],
        [x + 1, 0, -1],
        [x, 0, -1],
      ]),
      [
        [0, 1, 2, 3],
        [4, 5, 6, 7],
      ],
    );
    const flat = await after(
      openDocument(modelFromMesh('Squares', mesh)),
      request('unfold', {}),
      request('set-tiles', { tiles: [{ ...FIRST_TILE, padding: 16 }] }),
      request('pack', {}),
    );
    const [[left, low], [other, above]] = shellBoxes(flat) as UvBox[];
    const landing = (matrix: [number, number, number, number, number, number]) =>
      answerQuestion(flat, 'landing', { shells: [0], matrix }, context);
    expect((await landing([1, 0, 0, 1, 0, 0])).onto).toEqual([]);
    const onto: [number, number] = [other - left, above - low];
    expect(await landing([1, 0, 0, 1, ...onto])).toEqual({ onto: [1], nearest: { shell: 1, far: 0 } });
    expect(await landing([1, 0, 0, 1, onto[0] + 5, onto[1]])).toEqual({ onto: [], nearest: undefined });
    // As far from the right of the other as it is moved beyond being upon it.
    const [width] = [other, left].map(
      (_, i) => (shellBoxes(flat)[i] as UvBox)[2] - (shellBoxes(flat)[i] as UvBox)[0],
    );
    const beside = await landing([1, 0, 0, 1, onto[0] + width + 0.125, onto[1]]);
    expect(beside.onto).toEqual([]);
    expect(beside.nearest).toEqual({ shell: 1, far: expect.closeTo(0.125, 9) });
  });
});

describe('shells that are too near', () => {
  it('are told in pairs, those as far apart as a gap are not', async () => {
    const near = async (document: HemDocument, height: number, padding: number) => {
      const tiles = [{ ...FIRST_TILE, width: height, height, padding }];
      return [...(await ask({ ...document, tiles }, 'inspection', {})).near];
    };
    expect(await near(cut, 1000, 1)).toEqual([]);
    expect(await near(cut, 1000, 200)).toEqual([0, 1]);
    expect(await near(bare, 16, 16)).toEqual([]);
  });
});
