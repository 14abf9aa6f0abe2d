import { strFromU8 } from 'fflate';
import { type Model, type ModelSource, repeatable } from '../mesh/model.ts';
import { plural } from '../plural.ts';
import { type Format, formatOf } from './formats.ts';
import { counted, HOLDINGS } from './holdings.ts';
import { PLY_U, PLY_V, plyHeader } from './plyHeader.ts';

/**
 * What of a model, with so many UV sets, a file of a format would not hold, each in words: “2 materials”. None when it holds everything.
 */
export function lossesOf(model: Model, ending: string, setCount: number): string[] {
  const format = formatOf(`.${ending}`) as Format;
  const told = (format.lacks ?? []).flatMap((holding) => HOLDINGS[holding](model) ?? []);
  const sets = format.sets === 'one' && setCount > 1 ? [plural(setCount - 1, 'UV set', 'UV sets')] : [];
  const isRepeated = repeatable(model).format === format.repeats;
  return [...told, ...sets, ...(isRepeated ? [] : restOf(model.source))];
}

/** What a file has beside what is read of it: it stays where the file is repeated, and only there. */
function restOf(source: ModelSource): string[] {
  switch (source.format) {
    case 'glb':
      return restOfGlb(source.bytes);
    case 'ply':
      return restOfPly(source.bytes);
    case 'obj':
      return restOfObj(source.bytes);
    case 'none':
      return [];
  }
}

const LENGTH_AT = 12;
const JSON_AT = 20;

interface GltfLists {
  readonly skins?: readonly object[];
  readonly animations?: readonly object[];
  readonly cameras?: readonly object[];
  readonly meshes?: readonly {
    readonly primitives?: readonly { readonly targets?: readonly object[]; readonly attributes?: object }[];
  }[];
}

function restOfGlb(bytes: Uint8Array): string[] {
  const length = new DataView(bytes.buffer, bytes.byteOffset).getUint32(LENGTH_AT, true);
  const {
    skins = [],
    animations = [],
    cameras = [],
    meshes = [],
  } = JSON.parse(strFromU8(bytes.subarray(JSON_AT, JSON_AT + length))) as GltfLists;
  const primitives = meshes.flatMap((mesh) => mesh.primitives ?? []);
  return [
    counted(skins.length, 'skin', 'skins'),
    counted(animations.length, 'animation', 'animations'),
    counted(cameras.length, 'camera', 'cameras'),
    primitives.some(({ targets }) => targets) ? 'morph targets' : undefined,
    primitives.some(({ attributes = {} }) => 'COLOR_0' in attributes) ? 'vertex colours' : undefined,
  ].filter((words) => words !== undefined);
}

function restOfPly(bytes: Uint8Array): string[] {
  const { elements } = plyHeader(bytes, () => {
    throw new Error('The PLY file that was opened can no longer be read.');
  });
  const known = new Set(['x', 'y', 'z', ...PLY_U, ...PLY_V]);
  const others = elements
    .find(({ name }) => name === 'vertex')
    ?.properties.filter(({ name }) => !known.has(name));
  return others && others.length > 0 ? [`of vertices: ${others.map(({ name }) => name).join(', ')}`] : [];
}

/** How far is looked for what an OBJ file has: its points stand before its faces. */
const LOOKED = 1 << 16;

function restOfObj(bytes: Uint8Array): string[] {
  const text = strFromU8(bytes.subarray(0, LOOKED), true);
  return [
    /^v([ \t]+[^\s]+){6,}[ \t\r]*$/m.test(text) ? 'vertex colours' : undefined,
    /^\s*vn\s/m.test(strFromU8(bytes, true)) ? 'normals of the file' : undefined,
  ].filter((words) => words !== undefined);
}
