import { strFromU8 } from 'fflate';
import { FileError } from '../errors.ts';
import type { Model, UvSet } from '../mesh/model.ts';
import { foundPoints } from './lostPoints.ts';
import { nameTable } from './nameTable.ts';
import { objLines } from './objLines.ts';
import { keywordOf, objScanner } from './objScanner.ts';

type Scanner = ReturnType<typeof objScanner>;

/**
 * Reads a Wavefront OBJ file: polygons, objects, groups, materials, smoothing groups and UVs.
 *
 * @param fileName  for the sentences of errors
 * @param report  called now and then with the part that has been read
 * @returns a model that remembers the file, so that an export can repeat it
 * @throws FileError naming the line
 */
export function readObj(bytes: Uint8Array, fileName: string, report?: (fraction: number) => void): Model {
  const reader = objReader(fileName);
  const scan = objScanner(bytes);
  let line = 1;
  for (let count = 0; scan.at < bytes.length; count++) {
    if ((count & 0x3fff) === 0) report?.(scan.at / bytes.length);
    const from = scan.at;
    scan.lines = 0;
    if (!reader.scanned(scan)) {
      scan.at = from;
      scan.lines = 0;
      const to = scan.statementEnd();
      // One statement, so one line of `objLines`.
      for (const { text } of objLines(strFromU8(bytes.subarray(from, to)))) {
        if (text) reader.statement(text, line);
      }
      scan.at = to;
    }
    line += scan.lines;
  }
  return reader.finish(bytes);
}

const V = 118;
const VT = keywordOf(118, 116);
const F = 102;

function objReader(fileName: string) {
  const positions: number[] = [];
  const texture: number[] = [];
  const faceStart = [0];
  const cornerVertex: number[] = [];
  const cornerTexture: number[] = [];
  const objects = nameTable();
  const groups = nameTable();
  const materials = nameTable();
  const faceObject: number[] = [];
  const faceGroup: number[] = [];
  const faceMaterial: number[] = [];
  const faceSmoothing: number[] = [];
  let [object, group, material, smoothing] = ['', '', -1, -1];
  let [objectIndex, groupIndex] = [-1, -1];

  const fail = (
    line: number,
    problem: string,
    remedy = 'Export the model again and open the new file.',
  ): never => {
    throw new FileError(fileName, problem, remedy, line);
  };

  const numbers = (words: readonly string[], least: number, line: number, into: number[]) => {
    if (words.length < least + 1) fail(line, `“${words[0]}” needs ${least} numbers.`);
    for (let i = 1; i <= least; i++) {
      const value = Number(words[i]);
      // What broken exports write for “not a number” is told apart from what is no OBJ at all.
      if (!Number.isFinite(value) && !/nan|inf|#/i.test(words[i]))
        fail(line, `“${words[i]}” is not a number.`);
      into.push(value);
    }
  };

  /** One index of a corner: from 1, or back from the end when negative. */
  const index = (word: string, count: number, what: string, line: number): number => {
    const value = Number(word);
    const resolved = value < 0 ? count + value : value - 1;
    if (!Number.isInteger(value) || value === 0) fail(line, `“${word}” is not the number of a ${what}.`);
    if (resolved < 0 || resolved >= count) {
      fail(line, `a face asks for ${what} ${word}, but the lines above hold only ${count}.`);
    }
    return resolved;
  };

  const face = (words: readonly string[], line: number) => {
    if (words.length < 4) fail(line, 'a face needs at least three corners.');
    for (let i = 1; i < words.length; i++) {
      const [v, vt] = words[i].split('/');
      cornerVertex.push(index(v, positions.length / 3, 'vertex', line));
      cornerTexture.push(vt ? index(vt, texture.length / 2, 'UV', line) : -1);
    }
    endFace();
  };

  /** The rest of a face that has no more to it than corners that exist; nothing is kept of any other. */
  const scannedFace = (scan: Scanner): boolean => {
    const first = cornerVertex.length;
    while (!scan.end()) {
      const v = resolved(scan.whole(), positions.length / 3);
      let vt = -1;
      if (v >= 0 && scan.slash()) {
        const given = scan.whole();
        vt = given === 0 ? -1 : resolved(given, texture.length / 2);
        if (given !== 0 && vt < 0) return forget(first);
        if (scan.slash()) scan.whole();
      }
      if (v < 0 || !scan.blank()) return forget(first);
      cornerVertex.push(v);
      cornerTexture.push(vt);
      scan.skipBlanks();
    }
    if (cornerVertex.length - first < 3) return forget(first);
    endFace();
    return true;
  };
  const forget = (corners: number): false => {
    cornerVertex.length = cornerTexture.length = corners;
    return false;
  };
  /** From 1, or back from the end when negative; −1 where there is none. */
  const resolved = (value: number, count: number): number => {
    const index = value < 0 ? count + value : value - 1;
    return index >= 0 && index < count ? index : -1;
  };
  const endFace = () => {
    faceStart.push(cornerVertex.length);
    // Names are numbered when a face first has them.
    if (objectIndex < 0) objectIndex = objects.indexOf(object);
    if (groupIndex < 0) groupIndex = groups.indexOf(group);
    faceObject.push(objectIndex);
    faceGroup.push(groupIndex);
    faceMaterial.push(material);
    faceSmoothing.push(smoothing);
  };

  return {
    /** Reads a statement straight from the bytes; false when it wants a closer look, and then nothing has happened. */
    scanned(scan: Scanner): boolean {
      scan.skipBlanks();
      switch (scan.keyword()) {
        case V: {
          const x = scan.decimal();
          const y = scan.decimal();
          const z = scan.decimal();
          if (Number.isNaN(x + y + z) || !scan.end()) return false;
          positions.push(x, y, z);
          return true;
        }
        case VT: {
          const u = scan.decimal();
          const v = scan.decimal();
          if (Number.isNaN(u + v) || !scan.end()) return false;
          texture.push(u, v);
          return true;
        }
        case F:
          return scannedFace(scan);
        default:
          return false;
      }
    },

    statement(text: string, line: number) {
      const words = text.split(/\s+/);
      const rest = text.slice(words[0].length).trim();
      switch (words[0]) {
        case 'v':
          return numbers(words, 3, line, positions);
        case 'vt':
          if (words.length === 2) words.push('0');
          return numbers(words, 2, line, texture);
        case 'f':
          return face(words, line);
        case 'o':
          object = rest;
          objectIndex = -1;
          return;
        case 'g':
          group = rest;
          groupIndex = -1;
          return;
        case 'usemtl':
          material = materials.indexOf(rest);
          return;
        case 's':
          smoothing = rest === 'off' ? 0 : Math.max(0, Math.trunc(Number(rest)) || 0);
          return;
      }
    },

    finish(bytes: Uint8Array): Model {
      if (bytes.length === 0) {
        throw new FileError(fileName, 'the file is empty.', 'Export the model again and open the new file.');
      }
      if (faceStart.length === 1) {
        const problem =
          positions.length === 0
            ? 'there is no model in this file.'
            : `there are ${positions.length / 3} vertices but no faces.`;
        throw new FileError(fileName, problem, 'Open an OBJ file with polygons.');
      }
      const points = foundPoints(Float64Array.from(positions), faceStart, cornerVertex, fileName);
      return {
        name: fileName.replace(/\.[^.]*$/, ''),
        mesh: {
          positions: points.positions,
          faceStart: Uint32Array.from(faceStart),
          cornerVertex: Uint32Array.from(cornerVertex),
        },
        ...(points.faceLost && { faceLost: points.faceLost }),
        faceObject: Uint32Array.from(faceObject),
        objects: objects.names,
        faceGroup: Uint32Array.from(faceGroup),
        groups: groups.names,
        faceMaterial: Int32Array.from(faceMaterial),
        materials: materials.names.map((name) => ({ name })),
        images: [],
        faceSmoothing: Int32Array.from(faceSmoothing),
        uvSets: uvSetsFrom(texture, cornerTexture),
        source: { format: 'obj', bytes },
      };
    },
  };
}

function uvSetsFrom(texture: readonly number[], cornerTexture: readonly number[]): UvSet[] {
  if (!cornerTexture.some((t) => t >= 0)) return [];
  const uv = new Float64Array(2 * cornerTexture.length).fill(NaN);
  cornerTexture.forEach((t, c) => {
    if (t < 0) return;
    uv[2 * c] = texture[2 * t];
    uv[2 * c + 1] = texture[2 * t + 1];
  });
  return [{ name: 'UV', uv }];
}
