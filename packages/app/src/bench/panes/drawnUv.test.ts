import { type BufferAttribute, BufferGeometry } from 'three';
import { describe, expect, it } from 'vitest';
import { drawnUv } from './drawnUv.ts';

/** Two triangles. */
const REAL = Float32Array.from({ length: 12 }, (_, i) => i / 10);

function start() {
  const geometry = new BufferGeometry();
  let changes = 0;
  const drawn = drawnUv(geometry, () => changes++);
  const real = REAL.slice();
  drawn.set(real);
  const shown = () => [...(geometry.getAttribute('flatUv').array as Float32Array)];
  return { drawn, real, shown, changes: () => changes };
}

const second = (value: number) => ({ triangles: Uint32Array.of(1), uv: new Float32Array(6).fill(value) });

describe('the drawn UVs', () => {
  it('are the true ones, and with a picture a copy of them: the true ones are never written over', () => {
    const { drawn, real, shown, changes } = start();
    expect(shown()).toEqual([...REAL]);
    const before = changes();
    drawn.show('drag', second(7));
    expect(shown()).toEqual([...REAL.slice(0, 6), 7, 7, 7, 7, 7, 7]);
    expect(real).toEqual(REAL);
    expect(drawn.real).toBe(real);
    expect(changes()).toBe(before + 1);
    drawn.show('drag', { triangles: Uint32Array.of(0), uv: new Float32Array(6).fill(3) });
    // The newest picture of a slot, and nothing of the one before.
    expect(shown()).toEqual([3, 3, 3, 3, 3, 3, ...REAL.slice(6)]);
    drawn.clear('drag');
    expect(shown()).toEqual([...REAL]);
    expect(drawn.uv).toBe(real);
  });

  it('that move have only what differs uploaded, and all of it at first and with another picture', () => {
    const geometry = new BufferGeometry();
    const drawn = drawnUv(geometry, () => undefined);
    drawn.set(new Float32Array(6 * 50));
    const uploads = () => {
      const { updateRanges } = geometry.getAttribute('flatUv') as BufferAttribute;
      const told = updateRanges.map(({ start, count }) => [start, count]);
      updateRanges.length = 0; // as the renderer does
      return told;
    };
    const of = (triangle: number) => ({
      triangles: Uint32Array.of(triangle),
      uv: new Float32Array(6).fill(1),
    });
    drawn.show('running', of(20));
    expect(uploads()).toEqual([[0, 300]]);
    drawn.show('running', of(20));
    expect(uploads()).toEqual([[120, 6]]);
    drawn.show('running', of(23));
    expect(uploads()).toEqual([[120, 24]]);
    drawn.show('drag', of(1));
    expect(uploads()).toEqual([[0, 300]]);
    drawn.clear('drag');
    // What waits to be uploaded is not lost to what comes after.
    drawn.show('running', of(24));
    expect(uploads()).toEqual([
      [0, 300],
      [138, 12],
    ]);
  });

  it('show what runs and what is dragged at once, and each goes by itself', () => {
    const { drawn, shown } = start();
    drawn.show('running', { triangles: Uint32Array.of(0), uv: new Float32Array(6).fill(1) });
    drawn.show('drag', second(2));
    expect(shown()).toEqual([1, 1, 1, 1, 1, 1, 2, 2, 2, 2, 2, 2]);
    drawn.clear('running');
    expect(shown()).toEqual([...REAL.slice(0, 6), 2, 2, 2, 2, 2, 2]);
    const { version } = drawn;
    drawn.clear('running');
    expect(drawn.version).toBe(version);
  });

  it('forget every picture when the true ones change, and pass over triangles that are no more', () => {
    const { drawn, shown } = start();
    drawn.show('drag', second(2));
    drawn.set(REAL.slice(0, 6));
    expect(shown()).toEqual([...REAL.slice(0, 6)]);
    for (let i = 0; i < 2; i++) drawn.show('running', second(9));
    expect(shown()).toEqual([...REAL.slice(0, 6)]);
  });
});
