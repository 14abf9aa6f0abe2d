import {
  type HemDocument,
  openDocument,
  shellOf,
  shellsOf,
  topologyOf,
} from '@blunt-hem/core/document/document';
import { figuresOf } from '@blunt-hem/core/document/figures';
import { applyPatch } from '@blunt-hem/core/document/patch';
import { findEdge } from '@blunt-hem/core/mesh/connectivity';
import { modelFromMesh } from '@blunt-hem/core/mesh/model';
import { carryOut, localContext } from '@blunt-hem/core/operations/catalogue';
import { cube } from '@blunt-hem/core/testing/shapes';
import { Matrix4, PerspectiveCamera, Vector3 } from 'three';
import { beforeAll, describe, expect, it } from 'vitest';
import { boardLines } from './boardLines.ts';
import { flatBuffers, histogram, modelBuffers } from './buffers.ts';
import { picker } from './picking.ts';
import { drawPicture } from './picture.ts';
import { NO_UV } from './protocol.ts';

let bare: HemDocument;
let cut: HemDocument;

/** A cube with its lid (z = 1) cut off, unfolded. */
beforeAll(async () => {
  bare = openDocument(modelFromMesh('Cube', cube()));
  const { links } = topologyOf(bare.model);
  const lid = [
    [4, 5],
    [5, 6],
    [6, 7],
    [7, 4],
  ].map(([a, b]) => findEdge(links, a, b));
  cut = bare;
  for (const request of [
    { operation: 'cut', params: { edges: lid } },
    { operation: 'unfold', params: {} },
  ]) {
    cut = applyPatch(cut, (await carryOut(cut, request, localContext)).patch);
  }
});

const figures = (document: HemDocument) =>
  Array.from({ length: shellsOf(document).shellCount }, (_, s) => figuresOf(document, s));

describe('buffers', () => {
  it('of the model have three corners a triangle and two ends an edge', () => {
    const buffers = modelBuffers(bare);
    expect(buffers.positions).toHaveLength(9 * 12);
    expect(buffers.edgePositions).toHaveLength(6 * 12);
    expect([...buffers.box]).toEqual([-1, -1, -1, 1, 1, 1]);
    expect(buffers.parts).toMatchObject([{ kind: 'piece', names: ['Cube'], faces: [6] }]);
  });

  it('of the flat mark what has no UV, and draw seams on both their sides', () => {
    const without = flatBuffers(bare, figures(bare));
    expect(without.uv.every((x) => x === NO_UV)).toBe(true);
    expect(without.borderLines).toHaveLength(0);
    const flat = flatBuffers(cut, figures(cut));
    expect(flat.uv.some((x) => x === NO_UV)).toBe(false);
    expect(flat.seamLines).toHaveLength(4 * 6);
    expect(flat.borderLines).toHaveLength(4 * 2 * 6);
    expect(flat.innerLines).toHaveLength(8 * 2 * 6);
    expect(new Set(flat.faceShell).size).toBe(2);
  });

  it('skip sides of edges that are not there', () => {
    const edgeUv = Float32Array.from([0, 0, 1, 0, NO_UV, NO_UV, NO_UV, NO_UV]);
    expect(boardLines(edgeUv, [0])).toHaveLength(6);
    expect(boardLines(edgeUv, [])).toHaveLength(0);
  });

  it('count every triangle in the histogram once', () => {
    const { counts } = histogram(figures(cut), 'angle', 0, 60);
    expect(counts.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
  });
});

describe('picking', () => {
  it('meets the face in front, its nearest edge and its shell', () => {
    const found = picker().pickModel(cut, [0.9, 0, 5], [0, 0, -1]);
    const { links } = topologyOf(cut.model);
    expect(found?.point).toEqual([0.9, 0, 1]);
    expect(found?.edge).toBe(findEdge(links, 5, 6));
    expect(found?.shell).toBe(shellsOf(cut).faceShell[1]);
    expect(picker().pickModel(cut, [5, 5, 5], [0, 0, -1])).toBeUndefined();
  });

  it('on the Board meets the shell that lies there', () => {
    const { vertexCorner } = shellOf(cut, 1);
    const { uv } = cut.uvSets[0];
    const middle = [0, 1].map(
      (k) => [...vertexCorner].reduce((sum, c) => sum + uv[2 * c + k], 0) / vertexCorner.length,
    );
    const found = picker().pickBoard(cut, middle[0], middle[1]);
    expect(found?.shell).toBe(1);
    expect(picker().pickBoard(cut, 40, 40)).toBeUndefined();
    expect(picker().pickBoard(bare, 0.5, 0.5)).toBeUndefined();
  });

  it('passes over hidden parts', async () => {
    const hidden = applyPatch(
      cut,
      (await carryOut(cut, { operation: 'hide', params: {} }, localContext)).patch,
    );
    const picking = picker();
    expect(picking.pickModel(cut, [0, 0, 5], [0, 0, -1])).toBeDefined();
    expect(picking.pickModel(hidden, [0, 0, 5], [0, 0, -1])).toBeUndefined();
  });

  it('boxes visible edges and faces only, or all', () => {
    const camera = new PerspectiveCamera(40, 1, 0.1, 100);
    camera.position.set(3, 4, 6);
    camera.lookAt(new Vector3());
    camera.updateMatrixWorld();
    const matrix = new Matrix4()
      .multiplyMatrices(camera.projectionMatrix, camera.matrixWorldInverse)
      .toArray();
    const query = { matrix, rectangle: [-1, -1, 1, 1] as const, eye: [3, 4, 6] as const };
    // A corner of a cube shows three faces: nine of its twelve edges.
    expect(picker().edgesInBox(cut, { ...query, visibleOnly: true })).toHaveLength(9);
    expect(picker().edgesInBox(cut, { ...query, visibleOnly: false })).toHaveLength(12);
    expect(picker().facesInBox(cut, { ...query, visibleOnly: true })).toHaveLength(3);
    expect(picker().facesInBox(cut, { ...query, visibleOnly: false })).toHaveLength(6);
    expect(
      picker().edgesInBox(cut, { ...query, rectangle: [0.9, 0.9, 1, 1], visibleOnly: false }),
    ).toHaveLength(0);
  });
});

describe('picture', () => {
  it('of a marked face has it in view, through whatever lies before it', () => {
    const [width, height] = [64, 48];
    const marked = Uint8Array.of(1, 0, 0, 0, 0, 0);
    const pixels = drawPicture(bare, width, height, marked);
    const at = 4 * (width * (height / 2) + width / 2);
    const [red, green] = pixels.subarray(at, at + 2);
    expect(red).toBeGreaterThan(3 * green);
  });

  it('shows the model in the middle on a plain ground, in one tint a shell', () => {
    const [width, height] = [64, 48];
    const pixels = drawPicture(cut, width, height);
    const at = (x: number, y: number) => [...pixels.subarray(4 * (y * width + x), 4 * (y * width + x) + 4)];
    expect(at(0, 0)).toEqual([233, 227, 214, 255]);
    expect(at(32, 24)).not.toEqual(at(0, 0));
    const plain = drawPicture(bare, width, height);
    expect([...plain]).not.toEqual([...pixels]);
  });
});
