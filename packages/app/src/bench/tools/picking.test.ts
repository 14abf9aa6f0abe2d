import { beforeEach, describe, expect, it, vi } from 'vitest';
import { useBench } from '../../store/bench.ts';
import { byClick } from './picking.ts';
import type { Place } from './tool.ts';

const worker = vi.hoisted(() => ({ ask: vi.fn() }));
vi.mock('../../store/worker.ts', () => worker);
vi.mock('../../store/acts.ts', () => ({
  afterPick: (pick: Promise<unknown>) => pick,
  hint: () => undefined,
}));

/** A place on edge 7, through which runs a ring that does not pass along it: so it is on triangles. */
const at = (how: Place['how'], ctrl = false): Place =>
  ({ pane: 'model', how, ctrl, pick: async () => ({ face: 0, edge: 7, shell: 0 }) }) as unknown as Place;
const settle = () => new Promise((resolve) => setTimeout(resolve));
const edges = () => [...useBench.getState().edges].sort((a, b) => a - b);

async function doubleClick(how: Place['how']): Promise<void> {
  byClick.click?.(at(how));
  await settle();
  byClick.double?.(at(how));
  await settle();
}

beforeEach(() => {
  worker.ask.mockResolvedValue({ edges: [20, 21, 22], what: 'ring' });
  useBench.setState({ target: 'edges', edges: new Set([1, 2]), symmetry: undefined });
});

describe('a double click', () => {
  it('takes the ring and nothing else', async () => {
    await doubleClick('only');
    expect(edges()).toEqual([20, 21, 22]);
  });

  it('with Shift adds the ring, and not the edge that its first half picked', async () => {
    await doubleClick('add');
    expect(edges()).toEqual([1, 2, 20, 21, 22]);
  });

  it('with Alt removes the ring, and nothing that its first half hit', async () => {
    useBench.setState({ edges: new Set([1, 7, 20, 21, 22]) });
    await doubleClick('remove');
    expect(edges()).toEqual([1, 7]);
  });

  it('by keys has no first half to take back', async () => {
    byClick.click?.(at('add'));
    await settle();
    useBench.setState({ edges: new Set([3, 7]) });
    byClick.double?.(at('add', true));
    await settle();
    expect(edges()).toEqual([3, 7, 20, 21, 22]);
  });
});

describe('a click on a shell', () => {
  const rows = (...groups: number[]) => groups.map((group) => ({ group })) as never;
  const clickOn = async (how: Place['how']): Promise<number[]> => {
    byClick.click?.(at(how));
    await settle();
    return [...useBench.getState().chosen].sort((a, b) => a - b);
  };

  it('takes along what is kept together with it, and nothing else', async () => {
    useBench.setState({ target: 'shells', chosen: new Set([1]), shells: rows(3, 0, 3, 2) });
    expect(await clickOn('only')).toEqual([0, 2]);
    useBench.setState({ chosen: new Set([1, 2, 0]) });
    expect(await clickOn('remove')).toEqual([1]);
    useBench.setState({ chosen: new Set([1]), shells: rows(0, 0, 0, 2) });
    expect(await clickOn('add')).toEqual([0, 1]);
  });
});
