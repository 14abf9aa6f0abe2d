import { openDocument } from '@blunt-hem/core/document/document';
import { emptyHistory } from '@blunt-hem/core/document/history';
import { readModel } from '@blunt-hem/core/formats/readModel';
import { writeGlb } from '@blunt-hem/core/formats/writeGlb';
import { writeObj } from '@blunt-hem/core/formats/writeObj';
import { modelFromMesh } from '@blunt-hem/core/mesh/model';
import { readProject, writeProject, writeProjectChecked } from '@blunt-hem/core/persistence/projectFile';
import { sheet } from '@blunt-hem/core/testing/shapes';
import { count, ratio, seconds, type Table } from './table.ts';

async function timed<T>(work: () => T | Promise<T>): Promise<[T, number]> {
  const start = performance.now();
  const value = await work();
  return [value, (performance.now() - start) / 1000];
}

/** What is handed on, written and read back by our own readers, up to a million faces. */
export async function roundTrip(large: boolean): Promise<Table> {
  const rows: string[][] = [];
  for (const faces of [2_000, 20_000, 100_000, ...(large ? [500_000, 1_000_000] : [])]) {
    const side = Math.round(Math.sqrt(faces));
    const mesh = sheet(side, side, (i, j) => [j / side, i / side, Math.sin((9 * i) / side) * 0.1]);
    const uv = Float64Array.from(
      { length: 2 * mesh.cornerVertex.length },
      (_, i) => mesh.positions[3 * mesh.cornerVertex[i >> 1] + (i & 1)],
    );
    const model = { ...modelFromMesh('sheet', mesh), uvSets: [{ name: 'UV', uv }] };
    const document = openDocument(model);
    const project = { name: 'sheet', document, history: emptyHistory };
    const [bytes, write] = await timed(() => writeProject(project));
    const [{ loss }, read] = await timed(() => readProject(bytes, 'x'));
    const [, checked] = await timed(() => writeProjectChecked(project));
    const [obj, writeAsObj] = await timed(() => writeObj(model, uv));
    const [fromObj, readAsObj] = await timed(() => readModel(obj, 'x.obj'));
    const [glb, writeAsGlb] = await timed(() => writeGlb(model, [uv]));
    const [fromGlb, readAsGlb] = await timed(() => readModel(glb, 'x.glb'));
    const whole =
      loss === undefined &&
      fromObj.mesh.faceStart.length === mesh.faceStart.length &&
      fromGlb.mesh.positions.length > 0;
    rows.push([
      count(side * side),
      seconds(write),
      ratio(read, write),
      ratio(checked, write),
      `${seconds(writeAsObj)}, ${ratio(readAsObj, writeAsObj)}`,
      `${seconds(writeAsGlb)}, ${ratio(readAsGlb, writeAsGlb)}`,
      whole ? 'yes' : 'no',
    ]);
  }
  return {
    title: 'Written and read back',
    columns: [
      'faces',
      'project written, s',
      'read, against writing',
      'written and checked, against writing',
      'OBJ: written, s; read against that',
      'GLB: written, s; read against that',
      'all came back',
    ],
    rows,
  };
}
