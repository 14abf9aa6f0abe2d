import { type Fail, PLY_SIZES, type PlyEncoding } from './plyHeader.ts';

/** Numbers of a PLY file, one behind the other. */
export interface PlyValues {
  next(type: string): number;
  /** Where the next one is looked for. */
  at(): number;
}

export const plyValues = (bytes: Uint8Array, from: number, encoding: PlyEncoding, fail: Fail): PlyValues =>
  encoding === 'ascii' ? textValues(bytes, from, fail) : binaryValues(bytes, from, encoding, fail);

function textValues(bytes: Uint8Array, from: number, fail: Fail): PlyValues {
  const isBlank = (b: number) => b === 32 || (b >= 9 && b <= 13);
  let at = from;
  return {
    at: () => at,
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

function binaryValues(bytes: Uint8Array, from: number, order: 'little' | 'big', fail: Fail): PlyValues {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const little = order === 'little';
  let at = from;
  return {
    at: () => at,
    next(type) {
      const size = PLY_SIZES[type];
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
