import { strFromU8, strToU8 } from 'fflate';
import { faceCount, vertexCount } from '../mesh/mesh.ts';
import { type Model, repeatable } from '../mesh/model.ts';
import { type ByteWriter, byteWriter } from './byteWriter.ts';
import { PLY_LOOP, PLY_TEXCOORD, PLY_U, PLY_V, type PlyElement, plyHeader } from './plyHeader.ts';
import { plyValues } from './plyValues.ts';

const TEXCOORD = `property list uchar float ${PLY_TEXCOORD}`;
/** Corners of a face whose UVs a list with a length of one byte can hold. */
const MOST_CORNERS = 127;

/**
 * Writes a model as PLY (Turk 1994) with the given UVs as a `texcoord` list a face, the one place where this format has UVs by corner. A
 * model that came from a PLY file is repeated, every other property as it was written there; UVs by vertex, which cannot hold seams,
 * go. Any other is composed in binary: points in double precision where single would move them, polygons whole.
 *
 * @param uv  `2 × cornerCount`; a face with a corner that has none (NaN) has an empty list
 */
export function writePly(model: Model, uv: Float64Array): Uint8Array {
  const source = repeatable(model);
  return source.format === 'ply' ? repeated(source.bytes, uv) : composed(model, uv);
}

const fail = (problem: string): never => {
  throw new Error(`The PLY file that was opened cannot be repeated: ${problem}`);
};

const isUv = ({ name: element }: PlyElement, name: string): boolean =>
  element === 'vertex'
    ? PLY_U.includes(name) || PLY_V.includes(name)
    : element === 'face' && name === PLY_TEXCOORD;

function repeated(bytes: Uint8Array, uv: Float64Array): Uint8Array {
  const { elements, encoding, bodyAt } = plyHeader(bytes, fail);
  const out = byteWriter(2 * bytes.length);
  out.copy(headerWithUvs(strFromU8(bytes.subarray(0, bodyAt), true), elements));
  const values = plyValues(bytes, bodyAt, encoding, fail);
  const isText = encoding === 'ascii';
  let corner = 0;
  for (const element of elements) {
    const loop =
      element.name === 'face' ? element.properties.findIndex(({ name }) => PLY_LOOP.includes(name)) : -1;
    for (let i = 0; i < element.count; i++) {
      let corners = 0;
      element.properties.forEach(({ name, type, countType }, p) => {
        const from = values.at();
        const length = countType === undefined ? 1 : values.next(countType);
        for (let k = 0; k < length; k++) values.next(type);
        if (p === loop) corners = length;
        if (isUv(element, name)) return;
        if (!isText) out.copy(bytes, from, values.at());
        else {
          const words = strFromU8(bytes.subarray(from, values.at()), true).trim().split(/\s+/);
          out.text(`${p > 0 ? ' ' : ''}${words.join(' ')}`);
        }
      });
      if (loop >= 0) {
        // Faces of fewer corners are none, and were not read.
        const own = corners < 3 ? 0 : corners;
        writeUvs(out, uv, corner, own, encoding);
        corner += own;
      }
      if (isText && element.properties.length > 0) out.text('\n');
    }
  }
  out.copy(bytes, values.at() + (isText ? lineEndAt(bytes, values.at()) : 0));
  return out.finish();
}

/** Bytes to the end of the line. */
function lineEndAt(bytes: Uint8Array, from: number): number {
  let at = from;
  while (at < bytes.length && bytes[at] <= 32) if (bytes[at++] === 10) break;
  return at - from;
}

/** The header with one UV property, behind the others of faces. */
function headerWithUvs(header: string, elements: readonly PlyElement[]): Uint8Array {
  const newline = header.includes('\r\n') ? '\r\n' : '\n';
  let element: PlyElement | undefined;
  const lines: string[] = [];
  const close = () => {
    if (element?.name === 'face') lines.push(TEXCOORD);
  };
  for (const line of header.replace(/\r?\n$/, '').split(/\r?\n/)) {
    const words = line.trim().split(/\s+/);
    if (words[0] === 'element' || words[0] === 'end_header') {
      close();
      element = elements.find(({ name }) => name === words[1]);
    }
    if (words[0] === 'property' && element && isUv(element, words[words.length - 1])) continue;
    lines.push(line);
  }
  return strToU8(`${lines.join(newline)}${newline}`, true);
}

function writeUvs(
  out: ByteWriter,
  uv: Float64Array,
  corner: number,
  corners: number,
  encoding: 'ascii' | 'little' | 'big',
): void {
  const own = uv.subarray(2 * corner, 2 * (corner + corners));
  const length = corners > MOST_CORNERS || own.some(Number.isNaN) ? 0 : own.length;
  if (encoding === 'ascii') {
    out.text(` ${length}`);
    for (let i = 0; i < length; i++) out.text(` ${Math.fround(own[i])}`);
    return;
  }
  out.byte(length);
  const view = new DataView(new ArrayBuffer(4 * length));
  for (let i = 0; i < length; i++) view.setFloat32(4 * i, own[i], encoding === 'little');
  out.copy(new Uint8Array(view.buffer));
}

function composed({ mesh }: Model, uv: Float64Array): Uint8Array {
  const { positions, faceStart, cornerVertex } = mesh;
  const isSingle = positions.every((x) => Math.fround(x) === x);
  const type = isSingle ? 'float' : 'double';
  const most = faceStart.reduce(
    (widest, start, f) => Math.max(widest, start - faceStart[Math.max(0, f - 1)]),
    0,
  );
  const countType = most > 255 ? 'uint' : 'uchar';
  const out = byteWriter(
    positions.length * (isSingle ? 4 : 8) + cornerVertex.length * 12 + faceStart.length * 5,
  );
  out.text(
    [
      'ply',
      'format binary_little_endian 1.0',
      `element vertex ${vertexCount(mesh)}`,
      ...['x', 'y', 'z'].map((axis) => `property ${type} ${axis}`),
      `element face ${faceCount(mesh)}`,
      `property list ${countType} uint vertex_indices`,
      TEXCOORD,
      'end_header\n',
    ].join('\n'),
  );
  const places = isSingle ? Float32Array.from(positions) : positions;
  out.copy(inLittleEndian(places));
  for (let f = 0; f < faceCount(mesh); f++) {
    const corners = faceStart[f + 1] - faceStart[f];
    const view = new DataView(new ArrayBuffer(4 * corners + 4));
    const width = countType === 'uint' ? 4 : 1;
    if (width === 4) view.setUint32(0, corners, true);
    else view.setUint8(0, corners);
    for (let k = 0; k < corners; k++) view.setUint32(width + 4 * k, cornerVertex[faceStart[f] + k], true);
    out.copy(new Uint8Array(view.buffer, 0, width + 4 * corners));
    writeUvs(out, uv, faceStart[f], corners, 'little');
  }
  return out.finish();
}

/** The bytes of numbers, on a machine that keeps them so: all that run browsers do. */
const inLittleEndian = (numbers: Float32Array | Float64Array): Uint8Array =>
  new Uint8Array(numbers.buffer, numbers.byteOffset, numbers.byteLength);
