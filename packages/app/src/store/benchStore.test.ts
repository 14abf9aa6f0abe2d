import { beforeEach, describe, expect, it } from 'vitest';
import type { BenchState, FlatBuffers, ShellRow } from '../worker/protocol.ts';
import { receive, resetBench, useBench } from './benchStore.ts';

const none = new Float32Array(0);

function state(faceShell: number[], l2: number): BenchState {
  const flat: FlatBuffers = {
    uv: none,
    stretch: none,
    edgeUv: none,
    seamLines: none,
    borderLines: none,
    innerLines: none,
    faceShell: Uint32Array.from(faceShell),
  };
  const shells = [...new Set(faceShell)].map(
    (shell) => ({ shell, firstFace: faceShell.indexOf(shell) }) as ShellRow,
  );
  const totals = {
    shells: shells.length,
    unfolded: 0,
    l2,
    linf: 0,
    angleMean: 0,
    areaMean: 0,
    flipped: 0,
    collapsed: 0,
    tileUse: 0,
    density: 0,
    densitySpread: 1,
  };
  const histogram = { from: 0, to: 1, counts: [] };
  return {
    flat,
    hidden: new Uint8Array(1),
    shells,
    totals,
    areaHistogram: histogram,
    angleHistogram: histogram,
    undoable: [],
    redoable: [],
  };
}

describe('bench store', () => {
  beforeEach(() => resetBench());

  it('remembers the figures before the last act', () => {
    receive({ kind: 'state', state: state([0, 0], 1.5) });
    expect(useBench.getState().before?.l2).toBe(1.5);
    receive({ kind: 'state', state: state([0, 0], 1.2) });
    expect(useBench.getState()).toMatchObject({ before: { l2: 1.5 }, state: { totals: { l2: 1.2 } } });
  });

  it('keeps a shell chosen when a cut numbers shells anew', () => {
    receive({ kind: 'state', state: state([0, 0, 1, 1], 1) });
    useBench.setState({ shells: new Set([1]) });
    // Shell 0 falls in two: what was shell 1 is shell 2 now.
    receive({ kind: 'state', state: state([0, 1, 2, 2], 1) });
    expect([...useBench.getState().shells]).toEqual([2]);
    // And back again.
    receive({ kind: 'state', state: state([0, 0, 1, 1], 1) });
    expect([...useBench.getState().shells]).toEqual([1]);
  });

  it('shows what runs and forgets it when it ends', () => {
    receive({ kind: 'busy', label: 'relax…', fraction: 0.5, figure: 4.2 });
    expect(useBench.getState().busy).toEqual({ label: 'relax…', fraction: 0.5, figure: 4.2 });
    receive({ kind: 'busy' });
    expect(useBench.getState().busy).toBeUndefined();
    receive({ kind: 'saved', saved: false });
    expect(useBench.getState().saved).toBe(false);
  });

  it('forgets one project before the next', () => {
    receive({ kind: 'state', state: state([0], 1) });
    useBench.setState({ edges: new Set([1]), overlay: 'area' });
    resetBench();
    expect(useBench.getState()).toMatchObject({ state: undefined, edges: new Set(), overlay: 'area' });
  });
});
