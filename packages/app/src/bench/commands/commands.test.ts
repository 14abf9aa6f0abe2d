import { beforeEach, describe, expect, it, vi } from 'vitest';
import { resetBench, useBench } from '../../store/bench.ts';
import type { BenchFigures, FlatBuffers, ModelBuffers, ShellRow } from '../../worker/protocol.ts';
import { relax, unfold } from './flattening.ts';
import { nextWorst } from './inspecting.ts';
import { lock } from './placing.ts';

const acts = vi.hoisted(() => ({
  perform: vi.fn(async () => ({ label: '', notes: [] as string[], changed: true })),
  note: vi.fn(),
  hint: vi.fn(),
  picked: async () => undefined,
  afterPick: vi.fn(),
}));
vi.mock('../../store/acts.ts', () => acts);
vi.mock('../../store/worker.ts', () => ({ ask: vi.fn(), bench: {} }));
const framed = vi.hoisted(() => ({ frameFaces: vi.fn(), frameSelection: vi.fn() }));
vi.mock('../panes/framing.ts', () => framed);

const settle = () => new Promise((resolve) => setTimeout(resolve));
const row = (name: number, more: Partial<ShellRow> = {}): ShellRow =>
  ({ name, faces: 4, unfolded: true, locked: false, method: 'conformal', ...more }) as ShellRow;
const closed = { topology: { canUnfold: false } } as Partial<ShellRow>;
const open = { topology: { canUnfold: true } } as Partial<ShellRow>;
const flat = (seams: number[]) => ({ seams: Uint32Array.from(seams) }) as unknown as FlatBuffers;

beforeEach(() => {
  resetBench();
  vi.clearAllMocks();
});

describe('the lock', () => {
  it('locks what is chosen, and unlocks what is locked already', async () => {
    useBench.setState({ shells: [row(0), row(7)], chosen: new Set([1]) });
    expect(lock.label(useBench.getState())).toBe('Lock 1 shell');
    lock.act(useBench.getState());
    await settle();
    expect(acts.perform).toHaveBeenLastCalledWith('lock-shells', { shells: [7], locked: true });
    useBench.setState({ shells: [row(0), row(7, { locked: true })] });
    expect(lock.label(useBench.getState())).toBe('Unlock 1 shell');
    expect(lock.pressed?.(useBench.getState())).toBe(true);
    lock.act(useBench.getState());
    await settle();
    expect(acts.perform).toHaveBeenLastCalledWith('lock-shells', { shells: [7], locked: false });
  });

  it('asks for shells where none is chosen', async () => {
    lock.act(useBench.getState());
    await settle();
    expect(acts.perform).not.toHaveBeenCalled();
    expect(acts.hint).toHaveBeenCalled();
  });
});

describe('unfolding', () => {
  it('opens a model of which all is closed and nothing was cut, and says so', async () => {
    useBench.setState({ shells: [row(0, closed), row(5, closed)], flat: flat([]) });
    unfold.act(useBench.getState());
    await settle();
    expect(acts.perform).toHaveBeenCalledExactlyOnceWith('open-pieces', { shells: 'all' });
    expect(acts.note).toHaveBeenCalledWith(expect.stringMatching(/closed/));
  });

  it.each([
    ['where something is cut', { shells: [row(0, closed)], flat: flat([3]) }],
    ['where something can lie flat', { shells: [row(0, closed), row(1, open)], flat: flat([]) }],
    ['where shells are chosen', { shells: [row(0, closed)], flat: flat([]), chosen: new Set([0]) }],
  ])('unfolds as ever %s', async (_, state) => {
    useBench.setState(state);
    unfold.act(useBench.getState());
    await settle();
    expect(acts.perform).toHaveBeenCalledWith('unfold', expect.anything());
  });

  it('says so where nothing came of it', async () => {
    useBench.setState({ shells: [row(0, open)], flat: flat([]) });
    acts.perform.mockResolvedValueOnce({ label: '', notes: [], changed: false });
    unfold.act(useBench.getState());
    await settle();
    expect(acts.note).toHaveBeenCalled();
  });
});

describe('relaxing', () => {
  it('takes the chosen faces while faces are picked, and shells otherwise', async () => {
    useBench.setState({ target: 'faces', faces: new Set([4, 5]), shells: [row(0)] });
    expect(relax.label(useBench.getState())).toBe('Relax 2 faces');
    relax.tap?.();
    await settle();
    expect(acts.perform).toHaveBeenLastCalledWith(
      'relax',
      expect.objectContaining({ shells: 'all', faces: [4, 5], steps: 6 }),
    );
    useBench.setState({ target: 'shells', chosen: new Set([0]) });
    expect(relax.label(useBench.getState())).toBe('Relax 1 shell');
    relax.act(useBench.getState());
    await settle();
    expect(acts.perform).toHaveBeenLastCalledWith(
      'relax',
      expect.objectContaining({ shells: [0], faces: undefined, steps: 1000 }),
    );
  });
});

describe('the worst place', () => {
  it('is shown, and neither what is selected nor what a click picks changes', () => {
    const model = { triangleFace: Uint32Array.of(0, 1, 2) } as ModelBuffers;
    const figures = {
      logArea: Float32Array.of(0, 2, -3),
      smoothLogArea: new Float32Array(9),
      angle: new Float32Array(3),
    } as unknown as BenchFigures;
    const uv = Float32Array.of(0, 0, 0.1, 0, 0, 0.1, 0.5, 0.5, 0.6, 0.5, 0.5, 0.6, 0.9, 0.9, 1, 0.9, 0.9, 1);
    useBench.setState({
      model,
      figures,
      flat: { uv, faceShell: new Uint32Array(3) } as unknown as FlatBuffers,
      target: 'shells',
      chosen: new Set([0]),
      edges: new Set([9]),
      byFace: true,
    });
    nextWorst.act(useBench.getState());
    const { target, chosen, edges, faces, pointedOut } = useBench.getState();
    expect(pointedOut).toEqual(new Set([2]));
    expect({ target, chosen, edges, faces }).toEqual({
      target: 'shells',
      chosen: new Set([0]),
      edges: new Set([9]),
      faces: new Set(),
    });
    expect(framed.frameFaces).toHaveBeenCalledWith(new Set([2]), expect.any(Number));
    nextWorst.act(useBench.getState());
    expect(useBench.getState().pointedOut).toEqual(new Set([1]));
  });
});
