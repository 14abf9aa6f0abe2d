import type { FoundSymmetry } from '@blunt-hem/core/jobs/symmetry';
import { beforeEach, describe, expect, it } from 'vitest';
import type { ShellRow } from '../worker/protocol.ts';
import { resetBench, useBench } from './bench.ts';
import { boxOfChosen, imagesOf, select, selectImages, selectNothing } from './select.ts';

beforeEach(resetBench);

const symmetry = (byPlace: boolean): FoundSymmetry => ({
  symmetry: { kind: 'mirror', direction: [1, 0, 0], through: [0, 0, 0], fold: 2 },
  vertices: new Int32Array(0),
  edges: Int32Array.of(3, -1, 2, 0),
  faces: Int32Array.of(1, 0),
  byPlace,
});
const edges = () => [...useBench.getState().edges].sort((a, b) => a - b);

describe('what is picked', () => {
  it('takes its counterparts along while the mesh is symmetric', () => {
    useBench.setState({ symmetry: symmetry(false) });
    select('edges', [0, 1], 'only');
    expect(edges()).toEqual([0, 1, 3]);
    select('edges', [3], 'remove');
    expect(edges()).toEqual([1]);
    expect(useBench.getState().imaging).toBeUndefined();
  });

  it('leaves them to be looked for by place where the sides are meshed differently', () => {
    useBench.setState({ symmetry: symmetry(true) });
    expect(imagesOf(symmetry(true), 'edges', [0, 1])).toEqual([0, 1]);
    select('edges', [0], 'add');
    expect(edges()).toEqual([0]);
    expect(useBench.getState().imaging).toEqual({ target: 'edges', items: [0], how: 'add' });
    selectImages('edges', [7, 8], 'add');
    expect(edges()).toEqual([0, 7, 8]);
    expect(useBench.getState().imaging).toBeUndefined();
    selectImages('edges', [8], 'remove');
    expect(edges()).toEqual([0, 7]);
    // Shells are moved one by one, never two at once unasked.
    select('shells', [1], 'only');
    expect(useBench.getState().imaging).toBeUndefined();
  });

  it('ends what is only pointed out, and what was told as a hint', () => {
    useBench.setState({ pointedOut: new Set([4]), notice: { tone: 'hint', text: 'Pick first.' } });
    select('faces', [2], 'only');
    expect(useBench.getState().pointedOut.size).toBe(0);
    expect(useBench.getState().notice).toBeUndefined();
    useBench.setState({ pointedOut: new Set([4]) });
    selectNothing();
    expect(useBench.getState().pointedOut.size).toBe(0);
  });

  it('has the box of those that lie flat', () => {
    const shells = [
      { box: [0.1, 0.2, 0.3, 0.4] },
      { box: undefined },
      { box: [0.2, 0.1, 0.6, 0.3] },
    ] as unknown as ShellRow[];
    expect(boxOfChosen({ chosen: [0, 1, 2], shells })).toEqual([0.1, 0.1, 0.6, 0.4]);
    expect(boxOfChosen({ chosen: [1], shells })).toBeUndefined();
  });
});
