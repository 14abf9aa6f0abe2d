import { type HemDocument, openDocument, topologyOf } from '@blunt-hem/core/document/document';
import { figuresOf } from '@blunt-hem/core/document/figures';
import { buffersIn } from '@blunt-hem/core/jobs/buffersIn';
import { localJobs } from '@blunt-hem/core/jobs/index';
import { findEdge } from '@blunt-hem/core/mesh/connectivity';
import { modelFromMesh } from '@blunt-hem/core/mesh/model';
import { request } from '@blunt-hem/core/operations/catalogue';
import { after } from '@blunt-hem/core/testing/acts';
import { cube } from '@blunt-hem/core/testing/shapes';
import { beforeAll, describe, expect, it } from 'vitest';
import { linesOnBoard, linesOnModel, outlineOf, shownEdges, wireEnds } from '../bench/panes/edgeLines.ts';
import { flatBuffers, modelBuffers } from './buffers.ts';
import { figureController } from './figureController.ts';
import { ghostOf } from './ghost.ts';
import { NO_UV } from './protocol.ts';

let bare: HemDocument;
let cut: HemDocument;
let lid: number[];

/** A cube with its lid (z = 1) cut off, unfolded. */
beforeAll(async () => {
  bare = openDocument(modelFromMesh('Cube', cube()));
  const { connectivity } = topologyOf(bare.model);
  const pairs = [
    [4, 5],
    [5, 6],
    [6, 7],
    [7, 4],
  ];
  lid = pairs.map(([a, b]) => findEdge(connectivity, a, b));
  cut = await after(bare, request('cut', { edges: lid }), request('unfold', {}));
});

describe('buffers', () => {
  it('of the model have three corners a triangle and two ends an edge, on both sides', () => {
    const buffers = modelBuffers(bare);
    expect(buffers.positions).toHaveLength(9 * 12);
    expect([...buffers.box]).toEqual([-1, -1, -1, 1, 1, 1]);
    expect(buffers.parts).toMatchObject([{ kind: 'piece', names: ['Cube'], faces: [6] }]);
    // Every edge is where its vertices are, from either side.
    const { mesh } = bare.model;
    for (let e = 0; e < 12; e++) {
      const ends = new Set<string>();
      for (const drawn of buffers.edgeEnds.subarray(4 * e, 4 * e + 4))
        ends.add([...buffers.positions.subarray(3 * drawn, 3 * drawn + 3)].join());
      const vertices = [...buffers.edgeVertices.subarray(2 * e, 2 * e + 2)];
      expect(ends).toEqual(
        new Set(vertices.map((v) => [...mesh.positions.subarray(3 * v, 3 * v + 3)].join())),
      );
    }
  });

  it('of the flat mark what has no UV, and name seams and borders', () => {
    const model = modelBuffers(bare);
    const without = flatBuffers(bare);
    expect(without.uv.every((x) => x === NO_UV)).toBe(true);
    expect(linesOnBoard(model, without.uv, lid)).toHaveLength(0);
    const flat = flatBuffers(cut);
    expect(flat.uv.some((x) => x === NO_UV)).toBe(false);
    expect([...flat.seams].sort()).toEqual([...lid].sort());
    expect(model.borders).toHaveLength(0);
    expect(new Set(flat.faceShell).size).toBe(2);
    // Seams lie in two places in the flat, and in one on the model.
    expect(linesOnBoard(model, flat.uv, flat.seams)).toHaveLength(4 * 2 * 6);
    expect(linesOnModel(model, flat.seams)).toHaveLength(4 * 6);
  });

  it('leave out what is hidden, and draw an edge from the side that is shown', () => {
    const model = modelBuffers(bare);
    const hidden = Uint8Array.of(1, 0, 0, 0, 0, 0);
    expect(wireEnds(model, new Uint8Array(6))).toHaveLength(2 * 12);
    const wires = wireEnds(model, hidden);
    expect(wires).toHaveLength(2 * 12);
    expect([...wires].every((end) => model.triangleFace[Math.floor(end / 3)] !== 0)).toBe(true);
    expect(wireEnds(model, new Uint8Array(6).fill(1))).toHaveLength(0);
    const all = Uint32Array.from({ length: 12 }, (_, e) => e);
    expect(shownEdges(model, new Uint8Array(6).fill(1), all)).toHaveLength(0);
    expect(shownEdges(model, hidden, all)).toHaveLength(12);
  });

  it('know the outline of chosen faces; a closed piece is outlined by all its edges', () => {
    const model = modelBuffers(bare);
    expect(outlineOf(model, new Set())).toEqual([]);
    expect(outlineOf(model, new Set([1])).sort()).toEqual([...lid].sort());
    expect(outlineOf(model, new Set([0, 1, 2, 3, 4, 5]))).toHaveLength(12);
  });

  it('are found in answers, each once', () => {
    const shared = new Float32Array(4);
    const part = shared.subarray(1);
    expect(
      buffersIn({ none: new Uint8Array(0), a: shared, b: [{ c: shared }], d: part, e: 'x', f: undefined }),
    ).toEqual([shared.buffer]);
  });
});

describe('the figures of shells', () => {
  it('are measured again for those that changed, and no others', async () => {
    let measured = 0;
    const jobs: typeof localJobs = {
      width: 1,
      run(name, input, context) {
        if (name === 'figures') measured += (input as { shells: readonly number[] }).shells.length;
        return localJobs.run(name, input, context);
      },
    };
    const controller = figureController(jobs);
    controller.forget(cut, []);
    expect(controller.rows(cut).map(({ faces, unfolded, stretch }) => [faces, unfolded, stretch])).toEqual([
      [5, true, undefined],
      [1, true, undefined],
    ]);
    await controller.measure(cut);
    expect(measured).toBe(2);
    const moved = await after(cut, request('transform-shells', { shells: [1], matrix: [2, 0, 0, 2, 0, 0] }));
    const { delta } = await import('@blunt-hem/core/operations/catalogue').then(async ({ carryOut }) =>
      carryOut(
        cut,
        request('transform-shells', { shells: [1], matrix: [2, 0, 0, 2, 0, 0] }),
        (await import('@blunt-hem/core/operations/localContext')).localContext,
      ),
    );
    controller.forget(moved, [delta]);
    await controller.measure(moved);
    expect(measured).toBe(2);
    expect(controller.rows(moved)[0].stretch?.l2).toBe(figuresOf(cut, 0).stretch?.l2);
  });

  it('are dropped when the document has changed meanwhile', async () => {
    const controller = figureController(localJobs);
    const first = controller.measure(cut);
    controller.forget(bare, []);
    expect(await first).toBeUndefined();
    const rows = await controller.measure(bare);
    expect(rows).toHaveLength(1);
  });
});

describe('the ghost of a cut', () => {
  it('outlines the shells that would change, with their stretch', async () => {
    const ghost = await ghostOf(bare, cut, localJobs);
    expect(ghost?.shells).toBe(2);
    expect(ghost?.lines).toHaveLength(4 * (4 + 4));
    expect(await ghostOf(cut, cut, localJobs)).toBeUndefined();
  });
});
