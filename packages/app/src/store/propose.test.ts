import { LIMIT_PRESETS } from '@blunt-hem/core/document/limits';
import type { Proposal } from '@blunt-hem/core/questions/proposal';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { resetBench, useBench } from './bench.ts';
import { countBeyond, discardProposal, holdProposal, propose, takeProposal } from './propose.ts';
import { showOpening } from './suggestCut.ts';

const worker = vi.hoisted(() => ({
  ask: vi.fn(),
  stopAsking: vi.fn(),
}));
vi.mock('./worker.ts', () => ({
  bench: worker,
  ask: vi.fn(),
  unwrap: (answer: { ok: unknown }) => answer.ok,
}));
const acts = vi.hoisted(() => ({
  perform: vi.fn(async () => ({ changed: true, notes: [], label: '' })),
  note: vi.fn(),
  notify: vi.fn<(notice: { text: string; offer: { act: () => void } }) => void>(),
  fail: vi.fn(),
}));
vi.mock('./acts.ts', () => acts);
vi.mock('../worker/reporting.ts', () => ({
  reporting: async (tell: (fraction: number) => void, work: (report: unknown) => unknown) => {
    for (const fraction of [0.2, 0.6, 0.4, 0.9]) {
      tell(fraction);
      seen.push(useBench.getState().proposing ?? -1);
    }
    return work(undefined);
  },
}));
const seen: number[] = [];

const proposal = (edges: number[]): Proposal =>
  ({
    edges,
    shells: [
      { face: 0, edges: edges.slice(0, 2), faces: 9 },
      { face: 5, edges: edges.slice(2), faces: 4 },
    ],
  }) as unknown as Proposal;

beforeEach(() => {
  resetBench();
  vi.clearAllMocks();
  seen.length = 0;
});

describe('a proposal', () => {
  it('is asked for what is chosen, and its progress never goes back', async () => {
    worker.ask.mockResolvedValueOnce({ ok: proposal([1, 2, 3]) });
    useBench.setState({ shells: [{ name: 4 }, { name: 9 }] as never, chosen: new Set([1]) });
    await propose({ preset: 'rough' });
    expect(worker.ask.mock.calls[0][1]).toMatchObject({ preset: 'rough', faces: [9], symmetric: 'auto' });
    expect(seen).toEqual([0.2, 0.6, 0.6, 0.9]);
    expect(useBench.getState()).toMatchObject({ proposal: { edges: [1, 2, 3] }, proposing: undefined });
  });

  it('without an edge is no proposal, and says why', async () => {
    worker.ask.mockResolvedValueOnce({ ok: proposal([]) });
    await propose({});
    expect(useBench.getState().proposal).toBeUndefined();
    expect(acts.note).toHaveBeenCalledWith(expect.stringMatching(/nothing to propose/));
  });

  it('is held, compared with the next, and comes back when that is discarded', () => {
    useBench.setState({ proposal: proposal([1]) });
    holdProposal();
    expect(useBench.getState().heldProposal?.edges).toEqual([1]);
    useBench.setState({ proposal: proposal([2]) });
    holdProposal();
    expect(useBench.getState()).toMatchObject({ proposal: { edges: [1] }, heldProposal: { edges: [2] } });
    discardProposal();
    expect(useBench.getState()).toMatchObject({ proposal: { edges: [2] }, heldProposal: undefined });
    discardProposal();
    expect(useBench.getState().proposal).toBeUndefined();
  });

  it('is cut in part: what is left stays proposed, and what was cut is relaxed in the same act', async () => {
    useBench.setState({ proposal: proposal([1, 2, 3]), heldProposal: proposal([7]) });
    await takeProposal([1, 2]);
    expect(acts.perform).toHaveBeenNthCalledWith(1, 'cut', { edges: [1, 2], relax: true });
    expect(useBench.getState()).toMatchObject({
      proposal: { edges: [3], shells: [{ face: 5 }] },
      heldProposal: undefined,
    });
    await takeProposal([3]);
    expect(useBench.getState().proposal).toBeUndefined();
  });

  it('that is rougher than the limits allow offers rough ones', async () => {
    const figures = { l2: 1.2, linf: 8, angleMean: 10, areaMean: 1.2, edges: [1], faces: 9 };
    const rough = { edges: [1], shells: [{ face: 0, ...figures }] } as unknown as Proposal;
    useBench.setState({ proposal: rough, limits: LIMIT_PRESETS.usual });
    expect(countBeyond(rough.shells, LIMIT_PRESETS.usual)).toBe(1);
    expect(countBeyond(rough.shells, LIMIT_PRESETS.rough)).toBe(0);
    await takeProposal([1]);
    const [[told]] = acts.notify.mock.calls;
    expect(told.text).toMatch(/^One of these shells is stretched beyond/);
    told.offer.act();
    expect(acts.perform).toHaveBeenLastCalledWith('set-limits', {
      limits: LIMIT_PRESETS.rough,
    });
    // Where the limits allow it, nothing is offered; nor where rough ones would not help.
    acts.notify.mockClear();
    for (const linf of [3, 40]) {
      const shells = [{ ...rough.shells[0], linf }];
      useBench.setState({ proposal: { ...rough, shells }, limits: LIMIT_PRESETS.usual });
      await takeProposal([1]);
    }
    expect(acts.notify).not.toHaveBeenCalled();
  });
});

describe('closed pieces', () => {
  it('are opened by what is selected first, so that it is seen before it is cut', async () => {
    worker.ask.mockResolvedValueOnce({ ok: proposal([4, 5]) });
    const rows = [
      { name: 0, topology: { canUnfold: true } },
      { name: 6, topology: { canUnfold: false } },
      { name: 8, topology: { canUnfold: false }, locked: true },
    ];
    useBench.setState({ shells: rows as never });
    await showOpening();
    expect(worker.ask.mock.calls[0][1]).toMatchObject({ preset: 'rough', faces: [6] });
    expect(useBench.getState()).toMatchObject({ target: 'edges', edges: new Set([4, 5]) });
    expect(acts.perform).not.toHaveBeenCalled();
    useBench.setState({ shells: rows.slice(0, 1) as never });
    await showOpening();
    expect(worker.ask).toHaveBeenCalledTimes(1);
    expect(acts.note).toHaveBeenLastCalledWith(expect.stringMatching(/has a border/));
  });
});
