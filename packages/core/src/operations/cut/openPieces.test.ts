import { describe, expect, it } from 'vitest';
import { openDocument, shellOf, topologyOf } from '../../document/document.ts';
import type { Mesh } from '../../mesh/mesh.ts';
import { modelFromMesh } from '../../mesh/model.ts';
import { meshOfShell } from '../../surface/cutShell.ts';
import { shellTopology } from '../../surface/shellTopology.ts';
import { after } from '../../testing/acts.ts';
import { spikyBall } from '../../testing/sculpts.ts';
import { sheet, tube } from '../../testing/shapes.ts';
import { request } from '../catalogue.ts';

describe('opening', () => {
  const opened = async (mesh: Mesh) => {
    const document = await after(
      openDocument(modelFromMesh('model', mesh)),
      request('open-pieces', { least: true }),
    );
    return { document, edges: [...document.seams.keys()].filter((e) => document.seams[e] === 1) };
  };

  it('cuts a sleeve lengthwise, dead straight', async () => {
    const { document, edges } = await opened(meshOfShell(tube(20, 12, 10)));
    expect(shellTopology(shellOf(document, 0)).kind).toBe('disk');
    expect(edges).toHaveLength(20);
  });

  it('joins the spikes of a ball, not two places of it alone', async () => {
    const ball = meshOfShell(spikyBall(26));
    const { document, edges } = await opened(ball);
    expect(shellTopology(shellOf(document, 0)).kind).toBe('disk');
    const { edgeVertices } = topologyOf(document.model).connectivity;
    const degree = new Map<number, number>();
    for (const e of edges)
      for (let k = 0; k < 2; k++)
        degree.set(edgeVertices[2 * e + k], (degree.get(edgeVertices[2 * e + k]) ?? 0) + 1);
    expect([...degree.values()].filter((d) => d === 1).length).toBeGreaterThan(2);
  });

  it('leaves what can lie flat as it is', async () => {
    expect((await opened(sheet(4, 4, (i, j) => [j, i, 0]))).edges).toEqual([]);
  });
});
