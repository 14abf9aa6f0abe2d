import { describe, expect, it } from 'vitest';
import { openDocument } from '../document/document.ts';
import { StoppedError } from '../errors.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { FIRST_TILE } from '../surface/tiles.ts';
import { sheet, wholeShell } from '../testing/shapes.ts';
import { localJobs } from './index.ts';

/** Flat square shells of many triangles. */
const squares = (many: number) =>
  Array.from({ length: many }, (_, n) =>
    Float64Array.from([0, 0, 1, 0, 1, 1, 0, 0, 1, 1, 0, 1].map((x) => x * (1 + (n % 7) / 10))),
  );

/** A signal that is heard at the n-th look. */
function stopAt(n: number) {
  let looks = 0;
  return {
    signal: {
      get aborted() {
        return ++looks > n;
      },
    },
    looks: () => looks,
  };
}

describe('packing', () => {
  const options = {
    tile: { ...FIRST_TILE, width: 1024, height: 1024, padding: 2 },
    turning: 'quarter',
  } as const;

  it('hears a stop at every shell: before anything fits it gives up, afterwards it keeps the best so far', async () => {
    const shells = squares(60);
    const all = stopAt(Number.POSITIVE_INFINITY);
    await localJobs.run('pack', { shells, options }, { signal: all.signal, report: () => undefined });
    // Asked once a shell while turning them, and once a shell for every scale that is tried.
    expect(all.looks()).toBeGreaterThan(5 * shells.length);
    await expect(
      localJobs.run('pack', { shells, options }, { signal: stopAt(70).signal, report: () => undefined }),
    ).rejects.toThrow(StoppedError);
    const late = stopAt(all.looks() - 30);
    const best = await localJobs.run(
      'pack',
      { shells, options },
      { signal: late.signal, report: () => undefined },
    );
    expect(best).toHaveLength(60);
    // It looked no more than a few times once it was told.
    expect(late.looks()).toBeLessThan(all.looks() - 30 + 5);
  });
});

describe('jobs that have nothing to keep', () => {
  const shell = wholeShell(sheet(40, 40, (i, j) => [j, i, Math.sin(i * j)]));
  const uv = new Float64Array(2 * (shell.positions.length / 3)).map(
    (_, i) => shell.positions[3 * (i >> 1) + (i & 1)],
  );
  const stopped = { signal: { aborted: true }, report: () => undefined };

  it('end at once when they are stopped', async () => {
    const document = openDocument(
      modelFromMesh(
        'Sheet',
        sheet(4, 4, (i, j) => [j, i, 0]),
      ),
    );
    await expect(localJobs.run('inspect', { document }, stopped)).rejects.toThrow(StoppedError);
    await expect(localJobs.run('measure', [{ shell, uv }], stopped)).rejects.toThrow(StoppedError);
    await expect(localJobs.run('unfold', [{ shell, method: 'conformal' }], stopped)).rejects.toThrow(
      StoppedError,
    );
    const tree = await localJobs.run('ray-tree', new Float32Array(9), {
      ...stopped,
      signal: { aborted: false },
    });
    const sight = { tree, eye: [0, 0, 1] as const, targets: new Float64Array(3) };
    await expect(localJobs.run('in-sight', sight, stopped)).rejects.toThrow(StoppedError);
  });

  it('are known by name', async () => {
    await expect(localJobs.run('dust' as never, undefined as never, stopped)).rejects.toThrow(
      /no job “dust”/,
    );
  });
});
