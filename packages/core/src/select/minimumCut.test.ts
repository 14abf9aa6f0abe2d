import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { StoppedError } from '../errors.ts';
import { minimumCut, type Network } from './minimumCut.ts';

const cost = ({ ends, capacity }: Network, isOne: (node: number) => boolean): number =>
  capacity.reduce((sum, c, a) => sum + (isOne(ends[2 * a]) === isOne(ends[2 * a + 1]) ? 0 : c), 0);

/** The cheapest of all ways to part the source from the sink. */
function leastOfAll(network: Network): number {
  let least = Infinity;
  for (let set = 0; set < 2 ** network.nodes; set++) {
    const isOne = (node: number) => ((set >> node) & 1) === 1;
    if (isOne(network.source) && !isOne(network.sink)) least = Math.min(least, cost(network, isOne));
  }
  return least;
}

const networks: fc.Arbitrary<Network> = fc.integer({ min: 2, max: 8 }).chain((nodes) =>
  fc
    .array(
      fc.record({
        a: fc.nat(nodes - 1),
        b: fc.nat(nodes - 1),
        capacity: fc.double({ min: 0, max: 9, noNaN: true }),
      }),
      { maxLength: 20 },
    )
    .map((arcs) => ({
      nodes,
      ends: Uint32Array.from(arcs.flatMap(({ a, b }) => [a, b])),
      capacity: Float64Array.from(arcs, (arc) => arc.capacity),
      source: 0,
      sink: nodes - 1,
    })),
);

describe('a minimum cut', () => {
  it('costs as little as the cheapest of all partings', () => {
    fc.assert(
      fc.property(networks, (network) => {
        const side = minimumCut(network);
        expect(side[network.source]).toBe(1);
        expect(side[network.sink]).toBe(0);
        expect(cost(network, (node) => side[node] === 1)).toBeCloseTo(leastOfAll(network), 8);
      }),
    );
  });

  it('cuts the narrow way of two, on the side of the source', () => {
    // 0 ═ 1 ─ 2 ─ 3 ═ 4: two arcs of the same capacity, the first is cut.
    const network = {
      nodes: 5,
      ends: Uint32Array.of(0, 1, 1, 2, 2, 3, 3, 4),
      capacity: Float64Array.of(5, 1, 1, 5),
      source: 0,
      sink: 4,
    };
    expect([...minimumCut(network)]).toEqual([1, 1, 0, 0, 0]);
  });

  it('stops', () => {
    const network = {
      nodes: 2,
      ends: Uint32Array.of(0, 1),
      capacity: Float64Array.of(1),
      source: 0,
      sink: 1,
    };
    expect(() => minimumCut(network, { aborted: true })).toThrow(StoppedError);
  });
});
