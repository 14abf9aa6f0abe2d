import { strFromU8, strToU8 } from 'fflate';
import { faceCount } from '../mesh/mesh.ts';
import { type Model, repeatable } from '../mesh/model.ts';
import { type ObjLine, objLines } from './objLines.ts';

/**
 * Writes a model as Wavefront OBJ with the given UVs. A model that came from an OBJ file is repeated as it
 * was, character by character; only `vt` lines and the UV numbers in faces are new.
 *
 * @param uv  `2 × cornerCount`; NaN where a corner has none
 */
export function writeObj(model: Model, uv: Float64Array): Uint8Array {
  const table = uvTable(model, uv);
  const source = repeatable(model);
  return source.format === 'obj' ? repeated(source.bytes, table) : composed(model, table);
}

interface UvTable {
  /** `vt` lines. */
  readonly lines: string;
  /** Number from 1 of each corner's UV; 0 for none. */
  readonly cornerNumber: Uint32Array;
}

/** Equal UVs at one vertex share a line. */
function uvTable({ mesh }: Model, uv: Float64Array): UvTable {
  const lines: string[] = [];
  const cornerNumber = new Uint32Array(mesh.cornerVertex.length);
  const known = new Map<string, number>();
  for (let c = 0; c < cornerNumber.length; c++) {
    if (Number.isNaN(uv[2 * c])) continue;
    const line = `vt ${round(uv[2 * c])} ${round(uv[2 * c + 1])}`;
    const key = `${mesh.cornerVertex[c]} ${line}`;
    let number = known.get(key);
    if (number === undefined) {
      lines.push(line);
      number = lines.length;
      known.set(key, number);
    }
    cornerNumber[c] = number;
  }
  return { lines: lines.length > 0 ? `${lines.join('\n')}\n` : '', cornerNumber };
}

/** Nine decimals: finer than a hundred-thousandth of a texel on the largest texture. */
const round = (x: number): number => Math.round(x * 1e9) / 1e9;

function repeated(bytes: Uint8Array, table: UvTable): Uint8Array {
  // One character a byte, so that names in any encoding come out as they went in.
  const text = strFromU8(bytes, true);
  const out: string[] = [];
  let corner = 0;
  let written = false;
  let copiedTo = 0;
  const replace = (line: ObjLine, by: string) => {
    out.push(text.slice(copiedTo, line.from), by);
    copiedTo = line.to;
  };
  for (const line of objLines(text)) {
    const words = line.text.split(/\s+/);
    const ending = lineEnding(text, line);
    if (words[0] === 'vt') replace(line, '');
    else if (words[0] === 'l' || words[0] === 'p') {
      // Lines may name UVs too, which are no longer there.
      if (line.text.includes('/')) replace(line, words.map((w) => w.split('/')[0]).join(' ') + ending);
    } else if (words[0] === 'f') {
      const corners = words.slice(1).map((word) => withUv(word, table.cornerNumber[corner++]));
      replace(line, `${written ? '' : table.lines}f ${corners.join(' ')}${ending}`);
      written = true;
    }
  }
  out.push(text.slice(copiedTo));
  return strToU8(out.join(''), true);
}

const lineEnding = (text: string, { from, to }: ObjLine): string => {
  const line = text.slice(from, to);
  if (line.endsWith('\r\n')) return '\r\n';
  return line.endsWith('\n') ? '\n' : '';
};

function withUv(word: string, number: number): string {
  const [v, , vn] = word.split('/');
  if (number === 0) return vn ? `${v}//${vn}` : v;
  return vn ? `${v}/${number}/${vn}` : `${v}/${number}`;
}

function composed(model: Model, table: UvTable): Uint8Array {
  const { mesh } = model;
  const out: string[] = [];
  for (let i = 0; i < mesh.positions.length; i += 3) {
    out.push(`v ${mesh.positions[i]} ${mesh.positions[i + 1]} ${mesh.positions[i + 2]}\n`);
  }
  out.push(table.lines);
  let [object, group, material, smoothing] = [-1, -1, -1, -1];
  for (let f = 0; f < faceCount(mesh); f++) {
    if (model.faceObject[f] !== object) {
      object = model.faceObject[f];
      if (model.objects[object]) out.push(`o ${model.objects[object]}\n`);
    }
    if (model.faceGroup[f] !== group) {
      group = model.faceGroup[f];
      if (model.groups[group]) out.push(`g ${model.groups[group]}\n`);
    }
    if (model.faceMaterial[f] !== material) {
      material = model.faceMaterial[f];
      if (material >= 0) out.push(`usemtl ${model.materials[material]}\n`);
    }
    if (model.faceSmoothing[f] !== smoothing) {
      smoothing = model.faceSmoothing[f];
      if (smoothing >= 0) out.push(`s ${smoothing || 'off'}\n`);
    }
    const words: string[] = [];
    for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++) {
      words.push(withUv(String(mesh.cornerVertex[c] + 1), table.cornerNumber[c]));
    }
    out.push(`f ${words.join(' ')}\n`);
  }
  return strToU8(out.join(''));
}
