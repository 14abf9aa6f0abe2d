import { describe, expect, it } from 'vitest';
import { openDocument } from '../document/document.ts';
import { StoppedError } from '../errors.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { type Progress, unattended } from '../progress.ts';
import { sheet, wholeShell } from '../testing/shapes.ts';
import { localJobs } from './index.ts';

/** Flat squares of several sizes. */
const squares = (many: number) =>
  Array.from({ length: many }, (_, n) => ({
    triangles: Uint32Array.from([0, 1, 2, 0, 2, 3]),
    uv: Float64Array.from([0, 0, 1, 0, 1, 1, 0, 1].map((x) => x * (1 + (n % 7) / 10))),
    turning: [0, Math.PI / 2],
  }));

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
  const options = { frame: [0, 0, 1, 1], gap: 2 / 1024, texel: 1 / 1024 } as const;
  const shells = squares(60);
  const quiet = () => undefined;

  it('hears a stop at every shell: before anything fits it gives up, afterwards it keeps the best so far', async () => {
    const all = stopAt(Number.POSITIVE_INFINITY);
    await localJobs.run('pack-first', { shells, options }, { signal: all.signal, report: quiet });
    // Asked once a shell for its field, and once for every scale that is tried.
    expect(all.looks()).toBeGreaterThan(2 * shells.length);
    await expect(
      localJobs.run('pack-first', { shells, options }, { signal: stopAt(70).signal, report: quiet }),
    ).rejects.toThrow(StoppedError);
  });

  it('keeps the best layout when it is stopped while it makes it better', async () => {
    const start = await localJobs.run('pack-first', { shells, options }, unattended);
    if (!start) throw new Error('does not fit');
    const better = { shells, start, options: { ...options, seed: 1, rounds: 1000 } };
    let [seen, best] = [0, 0];
    const stopped = {
      signal: {
        get aborted() {
          return seen >= 2;
        },
      },
      report: ({ places }: Progress) => {
        seen++;
        best = (places as Float64Array)[3];
      },
    };
    const end = await localJobs.run('pack-better', better, stopped);
    expect(best).toBeGreaterThan(start[0].scale);
    expect(end.placements[0].scale).toBe(best);
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
