import { frameOf, type Tile } from '@blunt-hem/core/surface/tiles';
import { BufferAttribute, BufferGeometry, Group, LineBasicMaterial, LineSegments } from 'three';
import { PALETTE } from '../../theme/palette.ts';
import type { Layer } from './layer.ts';

/** The frames of the tiles, and in each a grid of eighths of its height. */
export const tile: Layer = {
  name: 'tile',
  pane: 'board',
  make() {
    const [frames, grid] = [hairlines(0.85), hairlines(0.1)];
    const parts = [frames, grid];
    const object = new Group();
    for (const { lines } of parts) object.add(lines);
    let drawn: readonly Tile[] | undefined;
    return {
      object,
      needs: (s) => [s.dark, s.tiles],
      update({ dark, tiles }) {
        for (const { material } of parts) material.color.set(dark ? PALETTE.night : PALETTE.ink);
        if (drawn === tiles) return;
        drawn = tiles;
        frames.set(tiles.flatMap(frameLines));
        grid.set(tiles.flatMap(gridLines));
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

function hairlines(opacity: number) {
  const material = new LineBasicMaterial({ transparent: true, opacity });
  const lines = new LineSegments(new BufferGeometry(), material);
  lines.frustumCulled = false;
  const set = (positions: readonly number[]) => {
    // A buffer of another length needs another geometry.
    lines.geometry.dispose();
    lines.geometry = new BufferGeometry();
    lines.geometry.setAttribute('position', new BufferAttribute(Float32Array.from(positions), 3));
  };
  return { lines, material, set };
}

function frameLines(tile: Tile): number[] {
  const [left, low, right, high] = frameOf(tile);
  const corners = [
    [left, low],
    [right, low],
    [right, high],
    [left, high],
  ];
  return corners.flatMap((corner, i) => [...corner, -0.5, ...corners[(i + 1) % 4], -0.5]);
}

function gridLines(tile: Tile): number[] {
  const [left, low, right, high] = frameOf(tile);
  const lines: number[] = [];
  for (let u = left + 1 / 8; u < right - 1e-6; u += 1 / 8) lines.push(u, low, -1, u, high, -1);
  for (let v = low + 1 / 8; v < high - 1e-6; v += 1 / 8) lines.push(left, v, -1, right, v, -1);
  return lines;
}
