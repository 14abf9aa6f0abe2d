import { strFromU8 } from 'fflate';
import { FileError } from '../errors.ts';
import type { Model } from '../mesh/model.ts';
import { modelFromFile } from './modelFromFile.ts';

/**
 * Reads a PLY file (Turk 1994), as text or binary in either byte order: polygons of any size, and UVs where vertices (`u v`,
 * `s t`, `texture_u texture_v`) or corners (a `texcoord` list of faces) have them. Other properties are passed over.
 *
 * @throws FileError
 */
export function readPly(bytes: Uint8Array, fileName: string): Model {
  const fail = (problem: string): never => {
    throw new FileError(fileName, problem, 'Export the model again and open the new file.');
  };
  const { elements, encoding, bodyAt } = header(bytes, fail);
  const values =
    encoding === 'ascii' ? textValues(bytes, bodyAt, fail) : binaryValues(bytes, bodyAt, encoding, fail);
  const positions: number[] = [];
  const vertexUv: number[] = [];
  const faceStart = [0];
  const cornerVertex: number[] = [];
  const cornerUv: number[] = [];
  for (const element of elements) {
    const { name, count, properties } = element;
    // An element takes at least a byte an entry: a greater count is a lie, and believing it could take all memory.
    if (properties.length > 0 && count > bytes.length)
      fail(`it promises ${count} entries of “${name}” and is too short for them.`);
    if (properties.length === 0) continue;
    const place = (names: readonly string[]) => properties.findIndex((p) => names.includes(p.name));
    const xyz = ['x', 'y', 'z'].map((axis) => place([axis]));
    const uv = [place(['u', 's', 'texture_u', 'texture_s']), place(['v', 't', 'texture_v', 'texture_t'])];
    const loop = place(['vertex_indices', 'vertex_index']);
    const texcoord = place(['texcoord']);
    if (name === 'vertex' && xyz.includes(-1)) fail('its vertices have no x, y and z.');
    for (let i = 0; i < count; i++) {
      const entry = properties.map((property) => {
        if (property.countType === undefined) return values.next(property.type);
        const length = values.next(property.countType);
        if (!(length >= 0 && length <= bytes.length)) fail('a list has an impossible length.');
        return Array.from({ length }, () => values.next(property.type));
      });
      if (name === 'vertex') {
        for (const axis of xyz) positions.push(entry[axis] as number);
        if (uv[0] >= 0 && uv[1] >= 0) vertexUv.push(entry[uv[0]] as number, entry[uv[1]] as number);
      } else if (name === 'face' && loop >= 0) {
        const corners = entry[loop] as number[];
        if (!Array.isArray(corners) || corners.length < 3) continue;
        cornerVertex.push(...corners);
        faceStart.push(cornerVertex.length);
        const flat = texcoord >= 0 ? (entry[texcoord] as number[]) : [];
        for (let k = 0; k < 2 * corners.length; k++) cornerUv.push(flat[k] ?? NaN);
      }
    }
  }
  const vertices = positions.length / 3;
  const astray = cornerVertex.find((v) => !(Number.isInteger(v) && v >= 0 && v < vertices));
  if (astray !== undefined) fail(`a face asks for vertex ${astray} of ${vertices}.`);
  const perVertex = vertexUv.length > 0;
  const uv = cornerVertex.flatMap((v, c) =>
    perVertex ? [vertexUv[2 * v], vertexUv[2 * v + 1]] : [cornerUv[2 * c], cornerUv[2 * c + 1]],
  );
  return modelFromFile(fileName, { positions, faceStart, cornerVertex, uv });
}

interface Property {
  readonly name: string;
  readonly type: string;
  /** Type of its length, where it is a list. */
  readonly countType?: string;
}

interface Element {
  readonly name: string;
  readonly count: number;
  readonly properties: Property[];
}

type Encoding = 'ascii' | 'little' | 'big';
type Fail = (problem: string) => never;

const ENCODINGS: Record<string, Encoding> = {
  ascii: 'ascii',
  binary_little_endian: 'little',
  binary_big_endian: 'big',
};

const SIZES: Record<string, number> = {
  char: 1,
  uchar: 1,
  int8: 1,
  uint8: 1,
  short: 2,
  ushort: 2,
  int16: 2,
  uint16: 2,
  int: 4,
  uint: 4,
  int32: 4,
  uint32: 4,
  float: 4,
  float32: 4,
  double: 8,
  float64: 8,
};

const LONGEST_HEADER = 1 << 20;

function header(bytes: Uint8Array, fail: Fail) {
  const text = strFromU8(bytes.subarray(0, LONGEST_HEADER), true);
  const end = /^end_header[ \t]*\r?\n?/m.exec(text);
  if (!end) return fail('its header does not end.');
  const elements: Element[] = [];
  let encoding: Encoding | undefined;
  for (const line of text.slice(0, end.index).split(/\r?\n/)) {
    const words = line.trim().split(/\s+/);
    if (words[0] === 'format') encoding = ENCODINGS[words[1]];
    else if (words[0] === 'element') {
      const count = Number(words[2]);
      if (!Number.isInteger(count) || count < 0) fail(`“${words[2]}” is not a count.`);
      elements.push({ name: words[1], count, properties: [] });
    } else if (words[0] === 'property') {
      const list = words[1] === 'list';
      const [type, countType] = list ? [words[3], words[2]] : [words[1], undefined];
      for (const t of [type, ...(countType ? [countType] : [])])
        if (!SIZES[t]) fail(`“${t}” is no type of PLY.`);
      elements.at(-1)?.properties.push({ name: words[list ? 4 : 2], type, countType });
    }
  }
  if (!encoding) return fail('its header names no format that is known.');
  return { elements, encoding, bodyAt: end.index + end[0].length };
}

interface Values {
  next(type: string): number;
}

function textValues(bytes: Uint8Array, from: number, fail: Fail): Values {
  const isBlank = (b: number) => b === 32 || (b >= 9 && b <= 13);
  let at = from;
  return {
    next() {
      while (at < bytes.length && isBlank(bytes[at])) at++;
      const start = at;
      while (at < bytes.length && !isBlank(bytes[at])) at++;
      if (start === at) fail('it ends too soon.');
      const word = String.fromCharCode(...bytes.subarray(start, Math.min(at, start + 64)));
      const value = Number(word);
      if (Number.isNaN(value) && !/^-?nan$/i.test(word)) fail(`“${word}” is not a number.`);
      return value;
    },
  };
}

function binaryValues(bytes: Uint8Array, from: number, order: 'little' | 'big', fail: Fail): Values {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const little = order === 'little';
  let at = from;
  return {
    next(type) {
      const size = SIZES[type];
      if (at + size > bytes.length) fail('it ends too soon.');
      const place = at;
      at += size;
      switch (type) {
        case 'char':
        case 'int8':
          return view.getInt8(place);
        case 'uchar':
        case 'uint8':
          return view.getUint8(place);
        case 'short':
        case 'int16':
          return view.getInt16(place, little);
        case 'ushort':
        case 'uint16':
          return view.getUint16(place, little);
        case 'int':
        case 'int32':
          return view.getInt32(place, little);
        case 'uint':
        case 'uint32':
          return view.getUint32(place, little);
        case 'float':
        case 'float32':
          return view.getFloat32(place, little);
        default:
          return view.getFloat64(place, little);
      }
    },
  };
}
