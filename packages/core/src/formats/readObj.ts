import { strFromU8 } from 'fflate';
import { FileError } from '../errors.ts';
import type { Model, UvSet } from '../mesh/model.ts';
import { nameTable } from './nameTable.ts';
import { objLines } from './objLines.ts';

/**
 * Reads a Wavefront OBJ file: polygons, objects, groups, materials, smoothing groups and UVs.
 *
 * @param fileName  for the sentences of errors
 * @param report  called now and then with the part that has been read
 * @returns a model that remembers the file, so that an export can repeat it
 * @throws FileError naming the line
 */
export function readObj(bytes: Uint8Array, fileName: string, report?: (fraction: number) => void): Model {
  const text = strFromU8(bytes);
  const reader = objReader(fileName);
  for (const line of objLines(text)) {
    if (line.text) reader.statement(line.text, line.number);
    if ((line.number & 0x3fff) === 0) report?.(line.to / text.length);
  }
  return reader.finish(bytes);
}

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
      if (!Number.isFinite(value)) fail(line, `“${words[i]}” is not a number.`);
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
    faceStart.push(cornerVertex.length);
    faceObject.push(objects.indexOf(object));
    faceGroup.push(groups.indexOf(group));
    faceMaterial.push(material);
    faceSmoothing.push(smoothing);
  };

  return {
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
          return;
        case 'g':
          group = rest;
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
      return {
        name: fileName.replace(/\.[^.]*$/, ''),
        mesh: {
          positions: Float64Array.from(positions),
          faceStart: Uint32Array.from(faceStart),
          cornerVertex: Uint32Array.from(cornerVertex),
        },
        faceObject: Uint32Array.from(faceObject),
        objects: objects.names,
        faceGroup: Uint32Array.from(faceGroup),
        groups: groups.names,
        faceMaterial: Int32Array.from(faceMaterial),
        materials: materials.names,
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
