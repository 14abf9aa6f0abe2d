import type { BufferAttribute, Mesh as ThreeMesh } from 'three';
import { OBJLoader } from 'three/addons/loaders/OBJLoader.js';
import { describe, expect, it } from 'vitest';
import { toadFerryman } from '../../../demo/toadFerryman.ts';
import { openDocument, topologyOf } from '../src/document/document.ts';
import { writeObj } from '../src/formats/writeObj.ts';
import { findEdge } from '../src/mesh/connectivity.ts';
import { modelFromMesh } from '../src/mesh/model.ts';
import { request } from '../src/operations/catalogue.ts';
import { after } from '../src/testing/acts.ts';

/**
 * The exported toad, read by the loader of three.js, which splits every quad from its first corner: as it is written, and with every
 * face begun one corner later, so that it splits along the other diagonal.
 */
const parsed = (text: string): { flipped: number; triangles: number } => {
  const group = new OBJLoader().parse(text);
  let [flipped, triangles] = [0, 0];
  group.traverse((object) => {
    const uv = (object as ThreeMesh).geometry?.getAttribute('uv') as BufferAttribute | undefined;
    if (!uv) return;
    for (let i = 0; i < uv.count; i += 3, triangles++) {
      const [au, av, bu, bv, cu, cv] = [0, 1, 2].flatMap((k) => [uv.getX(i + k), uv.getY(i + k)]);
      if (!((bu - au) * (cv - av) - (bv - av) * (cu - au) > 0)) flipped++;
    }
  });
  return { flipped, triangles };
};

const begunLater = (text: string): string =>
  text.replace(/^f (\S+) (.+)$/gm, (_, first: string, others: string) => `f ${others} ${first}`);

describe('the exported toad', () => {
  it.each(['conformal', 'angle-based'] as const)(
    'has no face flipped under either diagonal, unfolded (%s), relaxed and packed',
    async (method) => {
      const { mesh, seams } = toadFerryman();
      const start = openDocument(modelFromMesh('Toad', mesh));
      const { connectivity } = topologyOf(start.model);
      const edges = seams.map(([a, b]) => findEdge(connectivity, a, b));
      const unfolded = await after(start, request('cut', { edges }), request('unfold', { method }));
      const relaxed = await after(unfolded, request('relax', { steps: 30 }), request('pack', {}));
      for (const document of [unfolded, relaxed]) {
        const text = new TextDecoder().decode(writeObj(document.model, document.uvSets[0].uv));
        const [one, other] = [parsed(text), parsed(begunLater(text))];
        expect(one.triangles).toBeGreaterThan(14_000);
        expect(other.triangles).toBe(one.triangles);
        expect([one.flipped, other.flipped]).toEqual([0, 0]);
      }
    },
  );
});
