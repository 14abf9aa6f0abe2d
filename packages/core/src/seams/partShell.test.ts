import { describe, expect, it } from 'vitest';
import { connectivityOf } from '../mesh/connectivity.ts';
import { edgeLength } from '../select/shortestPath.ts';
import { meshOfShell } from '../surface/cutShell.ts';
import { sheet, tube, wholeShell } from '../testing/shapes.ts';
import { partShell } from './partShell.ts';

describe('a shell is parted in two', () => {
  it('a tube by one ring of edges in the middle third', () => {
    const shell = tube(30, 12, 10);
    const mesh = meshOfShell(shell);
    const connectivity = connectivityOf(mesh);
    const task = { mesh, connectivity, seams: new Uint8Array(connectivity.isInterior.length) };
    const edges = partShell(task, shell, (e) => edgeLength(mesh, connectivity, e));
    expect(edges).toHaveLength(12);
    const along = edges.map((e) => shell.positions[3 * connectivity.edgeVertices[2 * e] + 1]);
    const heights = shell.positions.filter((_, i) => i % 3 === 1);
    const [low, high] = [Math.min(...heights), Math.max(...heights)];
    for (const y of along) {
      expect((y - low) / (high - low)).toBeGreaterThan(0.25);
      expect((y - low) / (high - low)).toBeLessThan(0.75);
    }
  });

  it('where an edge costs least, and along no seam that is there', () => {
    const shell = wholeShell(sheet(4, 20, (i, j) => [j, i, 0]));
    const mesh = meshOfShell(shell);
    const connectivity = connectivityOf(mesh);
    const xOf = (e: number) => [0, 1].map((k) => mesh.positions[3 * connectivity.edgeVertices[2 * e + k]]);
    const edges = partShell(
      { mesh, connectivity, seams: new Uint8Array(connectivity.isInterior.length) },
      shell,
      (e) => (xOf(e).every((x) => x === 12) ? 0.1 : 1),
    );
    expect(edges).toHaveLength(4);
    for (const e of edges) expect(xOf(e)).toEqual([12, 12]);
  });
});
