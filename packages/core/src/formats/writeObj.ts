import { strFromU8, strToU8 } from 'fflate';
import { faceCount } from '../mesh/mesh.ts';
import { type Model, repeatable } from '../mesh/model.ts';
import { type ByteWriter, byteWriter, inUnits } from './byteWriter.ts';
import { objLines } from './objLines.ts';
import { objNames, oneLine } from './objNames.ts';
import { keywordOf, objScanner } from './objScanner.ts';

const NEWLINE = 10;
const RETURN = 13;
const TAB = 9;
const SPACE = 32;
const HASH = 35;
const SLASH = 47;
const BACKSLASH = 92;
const F = 102;
const L = 108;
const P = 112;
const T = 116;
const V = 118;
const VT = keywordOf(V, T);

/**
 * Writes a model as Wavefront OBJ with the given UVs. A model that came from an OBJ file is repeated as it
 * was, character by character; only `vt` lines and the UV numbers in faces are new.
 *
 * @param uv  `2 × cornerCount`; NaN where a corner has none
 * @param library  name of the material library that a composed file refers to
 */
export function writeObj(model: Model, uv: Float64Array, library?: string): Uint8Array {
  const table = uvTable(model, uv);
  const source = repeatable(model);
  return source.format === 'obj' ? repeated(source.bytes, table) : composed(model, table, library);
}

interface UvTable {
  /** Of each `vt` line, in billionths: `2 × count`. */
  readonly places: Float64Array;
  readonly count: number;
  /** Number from 1 of each corner's UV; 0 for none. */
  readonly cornerNumber: Uint32Array;
}

/** Equal UVs at one vertex share a line. */
function uvTable({ mesh }: Model, uv: Float64Array): UvTable {
  const corners = mesh.cornerVertex.length;
  const places = new Float64Array(2 * corners);
  const cornerNumber = new Uint32Array(corners);
  /** The first line of each vertex, and the line after each line of its vertex; 0 where there is none. */
  const first = new Uint32Array(mesh.positions.length / 3);
  const next = new Uint32Array(corners + 1);
  let count = 0;
  for (let c = 0; c < corners; c++) {
    const u = inUnits(uv[2 * c]);
    const v = inUnits(uv[2 * c + 1]);
    if (Number.isNaN(u)) continue;
    const vertex = mesh.cornerVertex[c];
    let number = first[vertex];
    let last = 0;
    while (number > 0 && (places[2 * number - 2] !== u || places[2 * number - 1] !== v)) {
      last = number;
      number = next[number];
    }
    if (number === 0) {
      number = ++count;
      places[2 * number - 2] = u;
      places[2 * number - 1] = v;
      if (last > 0) next[last] = number;
      else first[vertex] = number;
    }
    cornerNumber[c] = number;
  }
  return { places, count, cornerNumber };
}

function writeTable(out: ByteWriter, { places, count }: UvTable): void {
  for (let i = 0; i < 2 * count; i += 2) {
    out.byte(V);
    out.byte(T);
    out.byte(SPACE);
    out.units(places[i]);
    out.byte(SPACE);
    out.units(places[i + 1]);
    out.byte(NEWLINE);
  }
}

/** The file again, byte for byte, so that names in any encoding come out as they went in. */
function repeated(bytes: Uint8Array, table: UvTable): Uint8Array {
  const out = byteWriter(2 * bytes.length);
  const scan = objScanner(bytes);
  let corner = 0;
  let written = false;
  let copiedTo = 0;
  while (scan.at < bytes.length) {
    const from = scan.at;
    const to = scan.statementEnd();
    scan.skipBlanks();
    const keyword = scan.keyword();
    // Lines and points may name UVs too, which are no longer there.
    const isBare = (keyword === L || keyword === P) && bytes.subarray(from, to).includes(SLASH);
    if (keyword === VT || keyword === F || isBare) {
      out.copy(bytes, copiedTo, from);
      copiedTo = to;
    }
    if (keyword === F) {
      if (!written) writeTable(out, table);
      written = true;
      if (isPlain(bytes, from, to)) corner += writeFace(out, bytes, scan.at, to, table.cornerNumber, corner);
      else {
        const line = strToU8(wordsOf(bytes, from, to).join(' '), true);
        corner += writeFace(out, line, 1, line.length, table.cornerNumber, corner);
      }
      out.copy(bytes, endingOf(bytes, to), to);
    } else if (isBare) {
      const words = wordsOf(bytes, from, to).map((word) => word.split('/')[0]);
      out.copy(strToU8(words.join(' '), true));
      out.copy(bytes, endingOf(bytes, to), to);
    }
    scan.at = to;
  }
  out.copy(bytes, copiedTo);
  return out.finish();
}

/** Whether a statement is one line without a comment. */
function isPlain(bytes: Uint8Array, from: number, to: number): boolean {
  for (let i = from; i < to; i++) if (bytes[i] === HASH || bytes[i] === BACKSLASH) return false;
  return true;
}

/** Words of a statement, without comment and continuations. */
const wordsOf = (bytes: Uint8Array, from: number, to: number): string[] =>
  [...objLines(strFromU8(bytes.subarray(from, to), true))][0].text.split(/\s+/);

/** Where the line end before `to` begins. */
const endingOf = (bytes: Uint8Array, to: number): number => {
  if (bytes[to - 1] !== NEWLINE) return to;
  return bytes[to - 2] === RETURN ? to - 2 : to - 1;
};

const isBlank = (byte: number): boolean =>
  byte === SPACE || byte === TAB || byte === RETURN || byte === NEWLINE;

/** A face with its new UVs, from the words behind its keyword; returns how many corners it has. */
function writeFace(
  out: ByteWriter,
  bytes: Uint8Array,
  from: number,
  to: number,
  cornerNumber: Uint32Array,
  corner: number,
): number {
  let count = 0;
  out.byte(F);
  for (let at = from; at < to; ) {
    if (isBlank(bytes[at])) {
      at++;
      continue;
    }
    // The vertex, and what stands behind a second stroke: the normal.
    const start = at;
    while (at < to && bytes[at] !== SLASH && !isBlank(bytes[at])) at++;
    out.byte(SPACE);
    out.copy(bytes, start, at);
    let strokes = 0;
    let normal = at;
    for (; at < to && !isBlank(bytes[at]); at++) if (bytes[at] === SLASH && ++strokes === 2) normal = at + 1;
    const hasNormal = strokes === 2 && normal < at;
    const number = cornerNumber[corner + count++];
    if (number > 0 || hasNormal) out.byte(SLASH);
    if (number > 0) out.whole(number);
    if (hasNormal) {
      out.byte(SLASH);
      out.copy(bytes, normal, at);
    }
  }
  return count;
}

function composed(model: Model, table: UvTable, library?: string): Uint8Array {
  const { mesh } = model;
  const { positions, cornerVertex, faceStart } = mesh;
  const out = byteWriter(16 * (positions.length + 2 * cornerVertex.length));
  if (library) out.text(`mtllib ${library}\n`);
  for (let i = 0; i < positions.length; i += 3) {
    out.byte(V);
    for (let k = i; k < i + 3; k++) {
      out.byte(SPACE);
      out.decimal(positions[k]);
    }
    out.byte(NEWLINE);
  }
  writeTable(out, table);
  const materials = objNames(model.materials.map(({ name }) => name));
  let [object, group, material, smoothing] = [-1, -1, -1, -1];
  for (let f = 0; f < faceCount(mesh); f++) {
    if (model.faceObject[f] !== object) {
      object = model.faceObject[f];
      const name = oneLine(model.objects[object]);
      if (name) out.text(`o ${name}\n`);
    }
    if (model.faceGroup[f] !== group) {
      group = model.faceGroup[f];
      const name = oneLine(model.groups[group]);
      if (name) out.text(`g ${name}\n`);
    }
    if (model.faceMaterial[f] !== material) {
      material = model.faceMaterial[f];
      if (material >= 0) out.text(`usemtl ${materials[material]}\n`);
    }
    if (model.faceSmoothing[f] !== smoothing) {
      smoothing = model.faceSmoothing[f];
      if (smoothing >= 0) out.text(`s ${smoothing || 'off'}\n`);
    }
    out.byte(F);
    for (let c = faceStart[f]; c < faceStart[f + 1]; c++) {
      out.byte(SPACE);
      out.whole(cornerVertex[c] + 1);
      if (table.cornerNumber[c] === 0) continue;
      out.byte(SLASH);
      out.whole(table.cornerNumber[c]);
    }
    out.byte(NEWLINE);
  }
  return out.finish();
}
