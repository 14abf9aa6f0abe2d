import { describe, expect, it } from 'vitest';
import { openDocument, shellOf, shellsOf, shellUv } from '../document/document.ts';
import { touchAt } from '../jobs/brushShell.ts';
import { localJobs } from '../jobs/index.ts';
import { measureStretch } from '../measure/stretch.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { unattended } from '../progress.ts';
import { answerQuestion } from '../questions/index.ts';
import { anyDiagonal } from '../surface/anyDiagonal.ts';
import { triangleArea } from '../surface/flatArea.ts';
import type { Shell } from '../surface/shell.ts';
import { after } from '../testing/acts.ts';
import { sheet, sphericalCap } from '../testing/shapes.ts';
import { seeded } from '../testing/wander.ts';
import { unfoldShell } from '../unfold/unfold.ts';
import { BRUSHES, brushedShell, dab } from './brush.ts';

const flatCap = () => {
  const shell = sphericalCap(12, 24, 1.6);
  return { shell, uv: unfoldShell(shell, 'conformal', unattended).uv };
};

/** The least flat area of any triangle, whichever way polygons are split. */
function leastArea(shell: Shell, uv: Float64Array): number {
  const { triangles } = anyDiagonal(shell);
  let least = Infinity;
  for (let t = 0; t < triangles.length / 3; t++) least = Math.min(least, triangleArea(triangles, uv, t));
  return least;
}

describe('a brush over the flat', () => {
  it.each(BRUSHES)('never folds a face, however hard it is pressed: %s', (brush) => {
    const { shell, uv } = flatCap();
    const random = seeded(11);
    const brushed = brushedShell(shell, uv, new Uint8Array(uv.length / 2));
    for (let i = 0; i < 120; i++) {
      const [u, v] = [3 * (random() - 0.5), 3 * (random() - 0.5)];
      const far = random() < 0.2 ? 4 : 0.3;
      const [du, dv] = [far * (random() - 0.5), far * (random() - 0.5)];
      dab(brushed, uv, brush, { u, v, du, dv, radius: 0.2 + random(), strength: 1 });
    }
    expect(leastArea(shell, uv)).toBeGreaterThan(0);
    expect(uv.every(Number.isFinite)).toBe(true);
    expect(measureStretch(shell, uv).flipped).toBe(0);
  });

  it('touches a shell that was touched before as one that was not', () => {
    const { shell, uv } = flatCap();
    const fresh = uv.slice();
    const held = new Uint8Array(uv.length / 2);
    const brushed = brushedShell(shell, uv, held);
    const random = seeded(5);
    for (let i = 0; i < 30; i++) {
      const [u, v] = [2 * (random() - 0.5), 2 * (random() - 0.5)];
      const touch = { u, v, du: 3 * (random() - 0.5), dv: 3 * (random() - 0.5), radius: 0.5, strength: 1 };
      dab(brushed, uv, 'push', touch);
      const { slot, marked } = brushedShell(shell, flatCap().uv, held);
      dab({ ...brushed, slot, marked }, fresh, 'push', touch);
    }
    expect(uv).toEqual(fresh);
  });

  it('pushes what is under it along, the middle most, and leaves the rest', () => {
    const { shell, uv } = flatCap();
    const before = uv.slice();
    const brushed = brushedShell(shell, uv, new Uint8Array(uv.length / 2));
    const under = dab(brushed, uv, 'push', { u: 0, v: 0, du: 0.05, dv: 0, radius: 0.8, strength: 1 });
    expect(under.length).toBeGreaterThan(5);
    for (let v = 0; v < uv.length / 2; v++) {
      const near = 1 - (before[2 * v] ** 2 + before[2 * v + 1] ** 2) / 0.8 ** 2;
      const due = near > 0 ? 0.05 * near * near : 0;
      expect(uv[2 * v] - before[2 * v]).toBeCloseTo(due, 9);
      expect(uv[2 * v + 1]).toBe(before[2 * v + 1]);
    }
  });

  it('gathers and spreads area, and evens stretch out', () => {
    const areaUnder = (uv: Float64Array, shell: Shell) => {
      let sum = 0;
      for (let t = 0; t < shell.triangles.length / 3; t++) {
        const v = shell.triangles[3 * t];
        // The innermost rings, by their places on the surface.
        if (shell.positions[3 * v] ** 2 + shell.positions[3 * v + 1] ** 2 < 0.15 || v < 40)
          sum += triangleArea(shell.triangles, uv, t);
      }
      return sum;
    };
    const change = (brush: 'gather' | 'spread') => {
      const { shell, uv } = flatCap();
      const before = areaUnder(uv, shell);
      const brushed = brushedShell(shell, uv, new Uint8Array(uv.length / 2));
      for (let i = 0; i < 5; i++)
        dab(brushed, uv, brush, { u: 0, v: 0, du: 0, dv: 0, radius: 0.9, strength: 1 });
      return areaUnder(uv, shell) / before;
    };
    expect(change('gather')).toBeLessThan(0.95);
    // However long it is pressed, lengths stay within a factor of two of what is due.
    for (const brush of ['gather', 'spread'] as const) {
      const { shell, uv } = flatCap();
      const brushed = brushedShell(shell, uv, new Uint8Array(uv.length / 2));
      for (let i = 0; i < 300; i++)
        dab(brushed, uv, brush, { u: 0, v: 0, du: 0, dv: 0, radius: 0.9, strength: 1 });
      const { l2, linf, flipped } = measureStretch(shell, uv);
      expect(flipped).toBe(0);
      expect(l2).toBeLessThan(2);
      expect(linf).toBeLessThan(4.5);
    }
    expect(change('spread')).toBeGreaterThan(1.05);
    const { shell, uv } = flatCap();
    const l2 = measureStretch(shell, uv).l2;
    const brushed = brushedShell(shell, uv, new Uint8Array(uv.length / 2));
    for (let i = 0; i < 40; i++)
      dab(brushed, uv, 'relax', { u: 0, v: 0, du: 0, dv: 0, radius: 9, strength: 1 });
    expect(measureStretch(shell, uv).l2).toBeLessThan(1 + 0.7 * (l2 - 1));
  });
});

describe('the operation', () => {
  const start = () =>
    after(
      openDocument(
        modelFromMesh(
          'Hill',
          sheet(8, 8, (i, j) => [j, i, 3 * Math.exp(-((i - 4) ** 2 + (j - 4) ** 2) / 6)]),
        ),
      ),
      {
        operation: 'unfold',
        params: {},
      },
    );
  const stroke = [
    0.5, 0.5, 0.02, 0.01, 0.3, 1, 0.52, 0.51, 0.02, 0.01, 0.3, 1, 0.54, 0.52, 0.02, 0.01, 0.3, 0.5,
  ];

  it('leads to what was shown under the hand, touch by touch', async () => {
    const document = await start();
    const context = { ...unattended, jobs: localJobs };
    // Made ready elsewhere on the shell, before another brush was taken.
    let picture = await answerQuestion(document, 'brushed', { face: 9, brush: 'gather', dabs: [] }, context);
    expect(picture.triangles).toHaveLength(0);
    for (let n = 6; n <= stroke.length; n += 6)
      picture = await answerQuestion(
        document,
        'brushed',
        { face: 0, brush: 'push', dabs: stroke.slice(0, n) },
        context,
      );
    const done = await after(document, {
      operation: 'brush',
      params: { face: 0, brush: 'push', dabs: stroke },
    });
    const shell = shellOf(done, 0);
    const uv = shellUv(done, shell) as Float64Array;
    const stretch = measureStretch(shell, uv);
    picture.triangles.forEach((t, i) => {
      for (let k = 0; k < 3; k++) {
        const v = shell.triangles[3 * t + k];
        expect(picture.uv[6 * i + 2 * k]).toBeCloseTo(uv[2 * v], 6);
        expect(picture.uv[6 * i + 2 * k + 1]).toBeCloseTo(uv[2 * v + 1], 6);
      }
      expect(picture.angle[i]).toBeCloseTo(stretch.angle[t], 2);
    });
    expect(picture.triangles.length).toBeGreaterThan(20);
    // Another brush over the same touches is another stroke.
    const other = await answerQuestion(
      document,
      'brushed',
      { face: 0, brush: 'gather', dabs: stroke },
      context,
    );
    expect([...other.uv]).not.toEqual([...picture.uv]);
    const again = await answerQuestion(
      document,
      'brushed',
      { face: 0, brush: 'push', dabs: stroke },
      context,
    );
    expect([...again.uv].sort()).toEqual([...picture.uv].sort());
    expect(touchAt(stroke, 6)).toEqual({ u: 0.52, v: 0.51, du: 0.02, dv: 0.01, radius: 0.3, strength: 1 });
  });

  it('leaves pins and stays where they are, and another shell alone', async () => {
    const document = await start();
    const pinned = await after(document, {
      operation: 'set-pins',
      params: { places: [{ vertex: 40, face: 27 }], pinned: true },
    });
    const done = await after(pinned, {
      operation: 'brush',
      params: { face: 0, brush: 'push', dabs: [0.5, 0.5, 0.05, 0, 0.9, 1] },
    });
    const { cornerVertex } = done.model.mesh;
    const moved = [...done.uvSets[0].uv.keys()].filter(
      (i) => done.uvSets[0].uv[i] !== pinned.uvSets[0].uv[i],
    );
    const vertices = new Set(moved.map((i) => cornerVertex[i >> 1]));
    expect(vertices.size).toBeGreaterThan(30);
    expect(vertices.has(40)).toBe(false);
    expect(shellsOf(done).shellCount).toBe(1);
    await expect(
      after(done, { operation: 'brush', params: { face: 0, brush: 'push', dabs: [1, 2] } }),
    ).rejects.toThrow(/six numbers/);
    const bare = openDocument(done.model, { keepUvs: false });
    await expect(
      after(bare, { operation: 'brush', params: { face: 0, brush: 'push', dabs: [] } }),
    ).rejects.toThrow(/unfold it first/);
  });
});
