import { BufferAttribute, BufferGeometry, Group, LineBasicMaterial, LineSegments } from 'three';
import { PALETTE } from '../../theme/palette.ts';
import type { Layer } from './layer.ts';

/** The frame of the tile and its grid of eighths. */
export const tile: Layer = {
  name: 'tile',
  pane: 'board',
  make() {
    const parts = [hairlines(frameLines(), 0.85), hairlines(gridLines(), 0.1)];
    const object = new Group();
    for (const { lines } of parts) object.add(lines);
    return {
      object,
      needs: (s) => [s.dark],
      update({ dark }) {
        for (const { material } of parts) material.color.set(dark ? PALETTE.night : PALETTE.ink);
      },
      dispose() {
        for (const { lines, material } of parts) {
          lines.geometry.dispose();
          material.dispose();
        }
      },
    };
  },
};

function hairlines(positions: Float32Array, opacity: number) {
  const material = new LineBasicMaterial({ transparent: true, opacity });
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(positions, 3));
  const lines = new LineSegments(geometry, material);
  lines.frustumCulled = false;
  return { lines, material };
}

const frameLines = (): Float32Array =>
  Float32Array.from(
    [0, 0, 0, 1, 0, 0, 1, 0, 0, 1, 1, 0, 1, 1, 0, 0, 1, 0, 0, 1, 0, 0, 0, 0].map((x, i) =>
      i % 3 === 2 ? -0.5 : x,
    ),
  );

function gridLines(): Float32Array {
  const lines: number[] = [];
  for (let k = 1; k < 8; k++) {
    lines.push(k / 8, 0, -1, k / 8, 1, -1, 0, k / 8, -1, 1, k / 8, -1);
  }
  return Float32Array.from(lines);
}
