import { strFromU8 } from 'fflate';
import { FileError } from '../errors.ts';
import type { Model } from '../mesh/model.ts';
import { modelFromFile } from './modelFromFile.ts';

const HEADER = 84;
const TRIANGLE = 50;

const AGAIN = 'Export the model again and open the new file.';

/**
 * Reads an STL file (3D Systems 1988), text or binary. STL repeats points for every triangle: those at exactly equal places are
 * joined. Normals are passed over, for the order of the corners says the same.
 *
 * @throws FileError
 */
export function readStl(bytes: Uint8Array, fileName: string): Model {
  const positions: number[] = [];
  const cornerVertex: number[] = [];
  const objects: string[] = [];
  const faceObject: number[] = [];
  const known = new Map<string, number>();
  const corner = (x: number, y: number, z: number) => {
    const key = `${x} ${y} ${z}`;
    let vertex = known.get(key);
    if (vertex === undefined) {
      vertex = positions.length / 3;
      known.set(key, vertex);
      positions.push(x, y, z);
    }
    cornerVertex.push(vertex);
  };
  if (isBinary(bytes, fileName)) readBinary(bytes, corner);
  else {
    readText(
      bytes,
      fileName,
      corner,
      (name) => {
        objects.push(name);
      },
      () => faceObject.push(Math.max(0, objects.length - 1)),
    );
  }
  const faces = cornerVertex.length / 3;
  return modelFromFile(fileName, {
    positions,
    faceStart: Array.from({ length: faces + 1 }, (_, f) => 3 * f),
    cornerVertex,
    ...(objects.length > 0 && { objects, faceObject }),
  });
}

/**
 * Whether a file is of the binary kind, which is as long as its count says; some begin with the word of a text file all the same.
 *
 * @throws FileError when it is of neither kind, or its count is not that of what it holds
 */
function isBinary(bytes: Uint8Array, fileName: string): boolean {
  const rest = bytes.length - HEADER;
  const count = rest >= 0 ? new DataView(bytes.buffer, bytes.byteOffset).getUint32(80, true) : 0;
  if (rest >= 0 && rest === TRIANGLE * count) return true;
  const head = strFromU8(bytes.subarray(0, 512), true);
  if (!head.includes('\0')) {
    if (/^\s*solid\b/.test(head)) return false;
    const isObj = /^(v|vn|vt|o|g|mtllib)\s/m.test(head);
    throw new FileError(
      fileName,
      'this is not an STL file.',
      isObj ? 'It looks like an OBJ file: let its name end in .obj.' : AGAIN,
    );
  }
  const held = Math.floor(rest / TRIANGLE);
  // Some have a few bytes more at their end.
  if (rest < 0 || held < count || (held > count && rest % TRIANGLE === 0))
    throw new FileError(
      fileName,
      `it says that it holds ${count} triangles, and there are ${Math.max(0, held)}.`,
      AGAIN,
    );
  return true;
}

function readBinary(bytes: Uint8Array, corner: (x: number, y: number, z: number) => void): void {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const count = view.getUint32(80, true);
  for (let t = 0; t < count; t++) {
    for (let k = 1; k <= 3; k++) {
      const at = HEADER + TRIANGLE * t + 12 * k;
      corner(view.getFloat32(at, true), view.getFloat32(at + 4, true), view.getFloat32(at + 8, true));
    }
  }
}

function readText(
  bytes: Uint8Array,
  fileName: string,
  corner: (x: number, y: number, z: number) => void,
  solid: (name: string) => void,
  facet: () => void,
): void {
  const lines = strFromU8(bytes).split('\n');
  let corners = 0;
  const fail = (problem: string, line: number): never => {
    throw new FileError(fileName, problem, AGAIN, line + 1);
  };
  lines.forEach((line, i) => {
    const words = line.trim().split(/\s+/);
    if (words[0] === 'solid') solid(words.slice(1).join(' '));
    else if (words[0] === 'vertex') {
      const [x, y, z] = words.slice(1, 4).map(Number);
      if (words.length < 4 || Number.isNaN(x + y + z)) fail('a vertex needs three numbers.', i);
      corner(x, y, z);
      corners++;
    } else if (words[0] === 'endfacet') {
      if (corners !== 3) fail(`a facet has ${corners} corners instead of three.`, i);
      corners = 0;
      facet();
    }
  });
  if (corners !== 0) fail('the last facet does not end.', lines.length - 1);
}
