import { LIMIT_PRESETS } from '@blunt-hem/core/document/limits';
import { FIRST_TILE } from '@blunt-hem/core/surface/tiles';
import { beforeEach, describe, expect, it } from 'vitest';
import type { BenchFigures, BenchState, ModelBuffers, ShellRow } from '../worker/protocol.ts';
import { resetBench, useBench } from './bench.ts';
import { receive } from './receive.ts';
import { isAtRest } from './rest.ts';
import { namesOfChosen, select, selectedFaces } from './select.ts';

const none = new Uint32Array(0);

function state(faceShell: number[]): BenchState {
  const rows = [...new Set(faceShell)].map((shell) => ({ name: faceShell.indexOf(shell) }) as ShellRow);
  return {
    flat: {
      uv: new Float32Array(0),
      faceShell: Uint32Array.from(faceShell),
      seams: none,
      seamBreaks: new Uint8Array(0),
      pins: new Uint32Array(0),
      stays: new Uint32Array(0),
      grain: new Uint32Array(0),
    },
    hidden: new Uint8Array(faceShell.length),
    shells: rows,
    uvSets: [{ id: 0, name: 'UV' }],
    currentUv: 0,
    placed: false,
    upAxis: 0,
    front: 0,
    limits: LIMIT_PRESETS.usual,
    tiles: [FIRST_TILE],
    undoable: [],
    redoable: [],
  };
}

describe('what the worker says', () => {
  beforeEach(() => resetBench());

  it('keeps a shell chosen when a cut numbers shells anew, and names it by a face', () => {
    receive({ kind: 'state', state: state([0, 0, 1, 1]) });
    select('shells', [1], 'only');
    expect(namesOfChosen()).toEqual([2]);
    // Shell 0 falls in two: what was shell 1 is shell 2 now.
    receive({ kind: 'state', state: state([0, 1, 2, 2]) });
    expect([...useBench.getState().chosen]).toEqual([2]);
    expect(namesOfChosen()).toEqual([2]);
    expect(selectedFaces()).toEqual([2, 3]);
    // And back again.
    receive({ kind: 'state', state: state([0, 0, 1, 1]) });
    expect([...useBench.getState().chosen]).toEqual([1]);
  });

  it('leaves as it was what it says nothing of', () => {
    receive({ kind: 'state', state: state([0, 0]) });
    const { flat, hidden } = useBench.getState();
    const { flat: _, hidden: __, ...rest } = state([0, 0]);
    receive({ kind: 'state', state: { ...rest, undoable: ['Hide'] } });
    expect(useBench.getState()).toMatchObject({ undoable: ['Hide'] });
    expect(useBench.getState().flat).toBe(flat);
    expect(useBench.getState().hidden).toBe(hidden);
  });

  it('keeps the flat before an act to be compared, and not that of another UV set', () => {
    receive({ kind: 'state', state: state([0, 0]) });
    receive({ kind: 'state', state: state([0, 1]) });
    expect(useBench.getState().before).toBeDefined();
    receive({ kind: 'state', state: { ...state([0, 0]), currentUv: 1 } });
    expect(useBench.getState()).toMatchObject({ before: undefined, currentUv: 1 });
    receive({ kind: 'state', state: { ...state([0, 1]), currentUv: 1 } });
    expect(useBench.getState().before).toBeDefined();
  });

  it('lets go of a selection that another mesh knows nothing of', () => {
    receive({ kind: 'state', state: state([0, 0, 1, 1]) });
    select('shells', [1], 'only');
    select('edges', [3], 'only');
    receive({ kind: 'model', model: {} as ModelBuffers });
    receive({ kind: 'state', state: state([0, 0]) });
    expect(useBench.getState()).toMatchObject({ chosen: new Set(), edges: new Set() });
  });

  it('shows what runs and forgets it when it ends', () => {
    receive({ kind: 'running', doing: 'Relaxing', fraction: 0.5, figure: 'energy 4.42, 4 is perfect' });
    expect(useBench.getState().running).toEqual({
      doing: 'Relaxing',
      fraction: 0.5,
      figure: 'energy 4.42, 4 is perfect',
    });
    receive({ kind: 'running' });
    expect(useBench.getState().running).toBeUndefined();
    receive({ kind: 'saved', saved: false });
    expect(useBench.getState().saved).toBe(false);
  });

  it('rests only when all that was asked is answered, kept and measured', () => {
    const resting = () => isAtRest(useBench.getState());
    expect(resting()).toBe(false);
    receive({ kind: 'model', model: {} as ModelBuffers });
    receive({ kind: 'state', state: state([0]) });
    expect(resting()).toBe(false);
    receive({ kind: 'figures', figures: { shells: [] } as unknown as BenchFigures });
    expect(resting()).toBe(false);
    receive({
      kind: 'layout',
      overlaps: none,
      findings: [],
      atLeast: false,
      covered: [0],
      coveredBefore: undefined,
      near: new Uint32Array(0),
    });
    expect(resting()).toBe(true);
    useBench.setState((s) => ({ asked: s.asked + 1 }));
    expect(resting()).toBe(false);
    useBench.setState((s) => ({ answered: s.answered + 1 }));
    expect(resting()).toBe(true);
    receive({ kind: 'running', doing: 'Packing' });
    expect(resting()).toBe(false);
    receive({ kind: 'running' });
    receive({ kind: 'state', state: state([0]) });
    expect(resting()).toBe(false);
  });

  it('forgets one project before the next, but not how one looks at things', () => {
    receive({ kind: 'state', state: state([0]) });
    useBench.setState({ edges: new Set([1]), overlay: 'area' });
    resetBench();
    expect(useBench.getState()).toMatchObject({ flat: undefined, edges: new Set(), overlay: 'area' });
  });
});
