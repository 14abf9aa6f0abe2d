import { openDocument } from '@blunt-hem/core/document/document';
import { readObj } from '@blunt-hem/core/formats/readObj';
import { writeObj } from '@blunt-hem/core/formats/writeObj';
import { modelFromMesh } from '@blunt-hem/core/mesh/model';
import { sheet } from '@blunt-hem/core/testing/shapes';
import { OBJLoader } from 'three/addons/loaders/OBJLoader.js';
import { count, ratio, seconds, type Table, time } from './table.ts';

/** Six decimals, as most programs write. */
const six = (x: number): number => Math.round(1e6 * x) / 1e6;

export function reading(large: boolean): Table {
  const rows = [2_000, 20_000, 100_000, ...(large ? [1_000_000] : [])].map((triangles) => {
    const side = Math.round(Math.sqrt(triangles / 2));
    const mesh = sheet(side, side, (i, j) => [
      six(j / side),
      six(i / side),
      six(Math.sin((9 * i) / side) * 0.1),
    ]);
    const model = modelFromMesh('sheet', mesh);
    const bytes = writeObj(model, new Float64Array(2 * mesh.cornerVertex.length).fill(NaN));
    const text = new TextDecoder().decode(bytes);
    const ours = time(3, () => readObj(bytes, 'sheet.obj'));
    const theirs = time(3, () => new OBJLoader().parse(text));
    const opened = time(1, () => openDocument(model));
    return [
      count(2 * side * side),
      (bytes.length / 1e6).toFixed(1),
      seconds(ours),
      ratio(ours, theirs),
      ratio(opened, ours),
    ];
  });
  return {
    title: 'Reading OBJ',
    columns: [
      'triangles',
      'MB',
      'ours, s',
      'against three’s OBJLoader',
      'opening (edges, triangles) against reading',
    ],
    rows,
  };
}
