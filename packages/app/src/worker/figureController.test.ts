import { applyDelta, type Delta } from '@blunt-hem/core/document/delta';
import { type HemDocument, openDocument } from '@blunt-hem/core/document/document';
import { figuresOf } from '@blunt-hem/core/document/figures';
import type { Request } from '@blunt-hem/core/document/request';
import { type Jobs, localJobs } from '@blunt-hem/core/jobs/index';
import { modelFromMesh } from '@blunt-hem/core/mesh/model';
import { carryOut, request } from '@blunt-hem/core/operations/catalogue';
import { localContext } from '@blunt-hem/core/operations/localContext';
import { cube } from '@blunt-hem/core/testing/shapes';
import { describe, expect, it } from 'vitest';
import { figureController } from './figureController.ts';

/** A controller over a cube of six shells, with what it has measured so far. */
async function start() {
  const told = { shells: 0 };
  const jobs = {
    width: 1,
    run: (name: never, input: never, context: never) => {
      told.shells += (input as { readonly shells: readonly number[] }).shells.length;
      return localJobs.run(name, input, context);
    },
  } as unknown as Jobs;
  const controller = figureController(jobs);
  let document: HemDocument = openDocument(modelFromMesh('Cube', cube()));
  /** Acts, and has measured what that changed: how many shells, and whether all figures are those that measuring anew gives. */
  const act = async (...requests: Request[]) => {
    const deltas: Delta[] = [];
    for (const each of requests) {
      const { delta } = await carryOut(document, each, localContext);
      document = applyDelta(document, delta);
      deltas.push(delta);
    }
    told.shells = 0;
    controller.forget(document, deltas);
    const found = (await controller.measure(document)) ?? [];
    found.forEach((figures, s) => {
      const fresh = figuresOf(document, s);
      expect(figures.stretch?.l2).toBeCloseTo(fresh.stretch?.l2 ?? 0, 9);
      expect(figures.stretch?.uvArea).toBeCloseTo(fresh.stretch?.uvArea ?? 0, 12);
      expect(figures.box?.map((x) => x.toFixed(9))).toEqual(fresh.box?.map((x) => x.toFixed(9)));
      expect([figures.shell, figures.stale, figures.relaxed, figures.folded]).toEqual([
        s,
        fresh.stale,
        fresh.relaxed,
        fresh.folded,
      ]);
    });
    return told.shells;
  };
  await act(request('cut', { edges: [...Array(12).keys()] }), request('unfold', {}));
  return { act };
}

describe('what is measured after an act', () => {
  it('is nothing of shells that were only laid out afresh, moved or scaled', async () => {
    const { act } = await start();
    expect(await act(request('transform-shells', { shells: [0], matrix: [2, 0, 0, 2, 0.1, 0] }))).toBe(0);
    expect(await act(request('keep-places', { keep: false }))).toBe(0);
  });

  it('is every shell that was bent, turned, cut or relaxed', async () => {
    const { act } = await start();
    expect(await act(request('transform-shells', { shells: [1], matrix: [1.5, 0, 0, 1, 0, 0] }))).toBe(1);
    expect(await act(request('transform-shells', { shells: [2, 3], matrix: [0, 1, -1, 0, 1, 0] }))).toBe(2);
    expect(await act(request('sew', { edges: [0] }), request('unfold', { shells: 'stale' }))).toBe(1);
  });
});
