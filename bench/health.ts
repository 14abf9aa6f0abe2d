import { patientOf } from '@blunt-hem/core/document/patient';
import { readObj } from '@blunt-hem/core/formats/readObj';
import { writeObj } from '@blunt-hem/core/formats/writeObj';
import { examine } from '@blunt-hem/core/health/examine';
import { modelFromMesh } from '@blunt-hem/core/mesh/model';
import { unattended } from '@blunt-hem/core/progress';
import { torus } from '@blunt-hem/core/testing/shapes';
import { count, growth, ratio, seconds, type Table, time } from './table.ts';

/** Every check on a sound ring of quads, half of it facing the hole, against reading the same ring. */
export function health(large: boolean): Table {
  let first: { size: number; seconds: number } | undefined;
  const rows = [1_000, 10_000, 50_000, ...(large ? [250_000] : [])].map((quads) => {
    const side = Math.round(Math.sqrt(quads));
    const model = modelFromMesh('ring', torus(side, side));
    const bytes = writeObj(model, new Float64Array(2 * model.mesh.cornerVertex.length).fill(NaN));
    const reading = time(3, () => readObj(bytes, 'ring.obj'));
    const patient = patientOf(model);
    let findings = 0;
    const examined = time(1, () => {
      findings = examine(patient, unattended).length;
    });
    const size = 2 * side * side;
    const power = first && growth(first, { size, seconds: examined });
    first ??= { size, seconds: examined };
    return [
      count(size),
      seconds(examined),
      ratio(examined, reading),
      power?.toFixed(2) ?? '–',
      `${findings}`,
    ];
  });
  return {
    title: 'Health check, all of it',
    columns: ['triangles', 'seconds', 'against reading', 'exponent since the first', 'findings'],
    rows,
  };
}
