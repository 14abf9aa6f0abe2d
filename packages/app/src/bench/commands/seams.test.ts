import { beforeEach, describe, expect, it, vi } from 'vitest';
import { useBench } from '../../store/bench.ts';
import type { FlatBuffers, ModelBuffers } from '../../worker/protocol.ts';
import { cut, sew } from './seams.ts';

const acts = vi.hoisted(() => ({
  perform: vi.fn(async () => undefined),
  note: vi.fn(),
  hint: vi.fn(),
  picked: async () => undefined,
}));
vi.mock('../../store/acts.ts', () => acts);
vi.mock('../../store/suggestCut.ts', () => ({ showOpening: vi.fn() }));

/** Edges 0 to 3 are seams, 8 and 9 the border of the mesh, the others neither. */
const flat = { seams: Uint32Array.of(0, 1, 2, 3) } as unknown as FlatBuffers;
const model = { borders: Uint32Array.of(8, 9) } as unknown as ModelBuffers;
const selected = (...edges: number[]) => useBench.setState({ flat, model, edges: new Set(edges) });
const labels = () => [cut, sew].map(({ label }) => label(useBench.getState()));
const settle = () => new Promise((resolve) => setTimeout(resolve));

beforeEach(() => {
  for (const each of [acts.perform, acts.note, acts.hint]) each.mockClear();
});

describe('cutting and sewing', () => {
  it('say on the button how many edges they would change, and change those', async () => {
    selected(2, 3, 4, 5, 6, 8);
    expect(labels()).toEqual(['Cut 3 edges', 'Sew 2 edges']);
    cut.act(useBench.getState());
    await settle();
    expect(acts.perform).toHaveBeenCalledWith('cut', { edges: [4, 5, 6] });
    selected(2, 3, 4, 8);
    expect(labels()).toEqual(['Cut 1 edge', 'Sew 2 edges']);
    sew.act(useBench.getState());
    await settle();
    expect(acts.perform).toHaveBeenLastCalledWith('sew', { edges: [2, 3] });
  });

  it('count anew once the seams are others', () => {
    selected(0, 4);
    expect(labels()).toEqual(['Cut 1 edge', 'Sew 1 edge']);
    useBench.setState({ flat: { ...flat, seams: Uint32Array.of(0, 4) } });
    expect(labels()).toEqual(['Cut edges', 'Sew 2 edges']);
  });

  it('say so where there is nothing to do, and leave the selection', async () => {
    selected(0, 8);
    cut.act(useBench.getState());
    await settle();
    expect(acts.note).toHaveBeenCalledWith('These edges are seams already, or the mesh ends there.');
    selected(5, 8);
    sew.act(useBench.getState());
    await settle();
    expect(acts.note).toHaveBeenLastCalledWith('None of these edges is a seam.');
    expect([...useBench.getState().edges]).toEqual([5, 8]);
    selected();
    sew.act(useBench.getState());
    await settle();
    expect(acts.hint).toHaveBeenCalledWith('Pick seams first, then sew them.');
    expect(acts.perform).not.toHaveBeenCalled();
  });
});
