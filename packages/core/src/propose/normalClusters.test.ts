import { describe, expect, it } from 'vitest';
import { connectivityOf } from '../mesh/connectivity.ts';
import { sheet } from '../testing/shapes.ts';
import { facesOfCluster, normalClusters } from './normalClusters.ts';

describe('clusters by normals', () => {
  it('join the faces of each side of a box of many first', () => {
    const box = sheet(4, 8, (i, j) => (j < 4 ? [j, i, 0] : [4, i, j - 4]));
    const joins = normalClusters(box, connectivityOf(box), () => true);
    expect(joins.parts).toHaveLength(2 * 31);
    const [a, b] = joins.parts.slice(-2);
    const sides = [facesOfCluster(joins, a), facesOfCluster(joins, b)];
    for (const side of sides) expect(new Set(side.map((f) => f % 8 < 4)).size).toBe(1);
    expect(sides[0].length + sides[1].length).toBe(32);
    const none = normalClusters(box, connectivityOf(box), () => false);
    expect(none.parts).toHaveLength(0);
  });
});
