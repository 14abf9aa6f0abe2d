import { strFromU8 } from 'fflate';

export interface PlyProperty {
  readonly name: string;
  readonly type: string;
  /** Type of its length, where it is a list. */
  readonly countType?: string;
}

export interface PlyElement {
  readonly name: string;
  readonly count: number;
  readonly properties: PlyProperty[];
}

export type PlyEncoding = 'ascii' | 'little' | 'big';
/** Says what is wrong, with an error. */
export type Fail = (problem: string) => never;

const ENCODINGS: Record<string, PlyEncoding> = {
  ascii: 'ascii',
  binary_little_endian: 'little',
  binary_big_endian: 'big',
};

/** Bytes of each type. */
export const PLY_SIZES: Record<string, number> = {
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

/** What a PLY file begins with: its elements with their properties, how numbers are written, and where they begin. */
export function plyHeader(
  bytes: Uint8Array,
  fail: Fail,
): {
  readonly elements: readonly PlyElement[];
  readonly encoding: PlyEncoding;
  readonly bodyAt: number;
} {
  const text = strFromU8(bytes.subarray(0, LONGEST_HEADER), true);
  const end = /^end_header[ \t]*\r?\n?/m.exec(text);
  if (!end) return fail('its header does not end.');
  const elements: PlyElement[] = [];
  let encoding: PlyEncoding | undefined;
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
        if (!PLY_SIZES[t]) fail(`“${t}” is no type of PLY.`);
      elements.at(-1)?.properties.push({ name: words[list ? 4 : 2], type, countType });
    }
  }
  if (!encoding) return fail('its header names no format that is known.');
  return { elements, encoding, bodyAt: end.index + end[0].length };
}

/** Names of properties that say the same. */
export const PLY_U: readonly string[] = ['u', 's', 'texture_u', 'texture_s'];
export const PLY_V: readonly string[] = ['v', 't', 'texture_v', 'texture_t'];
export const PLY_LOOP: readonly string[] = ['vertex_indices', 'vertex_index'];
/** UVs of the corners of a face, in turn. */
export const PLY_TEXCOORD = 'texcoord';
