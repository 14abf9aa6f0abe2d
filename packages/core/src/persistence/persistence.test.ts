import { zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { applyDelta, type Delta, inverse } from '../document/delta.ts';
import { openDocument, topologyOf } from '../document/document.ts';
import type { UvChange } from '../document/uvChange.ts';
import { fileNameOf } from '../formats/fileName.ts';
import { findEdge } from '../mesh/connectivity.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { carryOut } from '../operations/catalogue.ts';
import { localContext } from '../operations/localContext.ts';
import { cube } from '../testing/shapes.ts';
import { checksums } from './checksum.ts';
import { TooMuchError, unzipBounded } from './unzipBounded.ts';
import { applyKept } from './validateDelta.ts';

describe('unpacking', () => {
  const zip = zipSync({ small: Uint8Array.of(1, 2, 3), large: new Uint8Array(2 ** 20) });

  it('takes no more than it may, whatever the headers say', () => {
    expect(unzipBounded(zip, 2 ** 21).get('large')?.length).toBe(2 ** 20);
    expect(() => unzipBounded(zip, 2 ** 20)).toThrow(TooMuchError);
    // A header that tells a smaller size: found out as soon as more comes.
    const lying = zip.slice();
    const header = new DataView(lying.buffer, lying.byteOffset);
    let at = 0;
    for (let i = 0; i + 4 < lying.length; i++) if (header.getUint32(i, true) === 0x04034b50) at = i;
    header.setUint32(at + 22, 10, true);
    expect(() => unzipBounded(lying, 1000)).toThrow(TooMuchError);
    // Where there would be room, it is damaged: the others are not.
    const some = unzipBounded(lying, 2 ** 21);
    expect([...some.keys()]).toEqual(['small']);
  });

  it('refuses a zip that says it is too large before unpacking any of it', () => {
    const first = zipSync({ large: new Uint8Array(2 ** 20) });
    // Nothing of the contents is left: it can only be the header that tells.
    expect(() => unzipBounded(first.slice(0, 37), 1000)).toThrow(TooMuchError);
  });
});

describe('a patch that was read back', () => {
  async function unfolded() {
    const start = openDocument(modelFromMesh('Cube', cube()));
    const { connectivity } = topologyOf(start.model);
    const edges = [4, 5, 6, 7].map((a, i, ring) => findEdge(connectivity, a, ring[(i + 1) % 4]));
    const cut = await carryOut(start, { operation: 'cut', params: { edges } }, localContext);
    const document = applyDelta(start, cut.delta);
    const { delta } = await carryOut(document, { operation: 'unfold', params: {} }, localContext);
    const again = await carryOut(
      applyDelta(document, delta),
      { operation: 'transform-shells', params: { shells: [0], matrix: [1, 0, 0, 1, 0.1, 0] } },
      localContext,
    );
    return { document: applyDelta(document, delta), delta: again.delta };
  }
  const spoilt = (delta: Delta, field: 'vertices' | 'corners'): Delta => {
    const copy = structuredClone(delta);
    const change = copy.changes.find(({ kind }) => kind === 'uv') as UvChange;
    expect(change[field].at.length).toBeGreaterThan(0);
    change[field].before[0] += 1e-12;
    return copy;
  };

  it('has to start from exactly what is there, either way', async () => {
    const { document, delta } = await unfolded();
    const after = applyKept(document, delta);
    expect(applyKept(after, inverse(delta))).toEqual(document);
    for (const field of ['vertices', 'corners'] as const)
      expect(() => applyKept(document, spoilt(delta, field))).toThrow(/does not fit the model/);
    expect(() => applyKept(after, delta)).toThrow(/does not fit the model/);
  });
});

describe('what is written beside it', () => {
  it('is the checksum that the specification gives (XXH64 of nothing, of “a” and of “abc”, seed 0; from memory)', async () => {
    const checksum = await checksums();
    const of = (text: string) => checksum(new TextEncoder().encode(text));
    expect([of(''), of('a'), of('abc')]).toEqual([
      'ef46db3751d8e999',
      'd24ec4f1a98c6e5b',
      '44bc2cf5ad770999',
    ]);
    // In stretches as in one.
    const long = new Uint8Array(3 * 2 ** 20 + 5).map((_, i) => i % 251);
    expect(checksum(long)).not.toBe(checksum(long.slice(1)));
  });

  it('is a file name that every system takes', () => {
    expect(fileNameOf('Kröte: am/Fluss?', 'obj')).toBe('Kröte am Fluss.obj');
    expect(fileNameOf(' .. ', 'obj')).toBe('project.obj');
    expect(fileNameOf('🐸'.repeat(500), 'obj')).toBe(`${'🐸'.repeat(100)}.obj`);
  });
});
