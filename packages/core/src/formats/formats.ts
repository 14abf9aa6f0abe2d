import type { Model, ModelSource } from '../mesh/model.ts';
import type { Companions } from './companions.ts';
import type { Holding } from './holdings.ts';
import type { OutFile } from './outFile.ts';

/** A file format of models. What reads and writes it is loaded when it is wanted. */
export interface Format {
  readonly name: string;
  /** Of file names, without the dot, the usual one first. */
  readonly endings: readonly string[];
  /** Endings of files that one may name, which are opened along with it. */
  readonly alongside?: readonly string[];
  /** What speaks against bytes being of it, for “this is not …”; undefined where nothing does. */
  refuse?(bytes: Uint8Array): string | undefined;
  /** @throws FileError with what is wrong and what to do */
  read(
    bytes: Uint8Array,
    fileName: string,
    companions?: Companions,
    report?: (fraction: number) => void,
  ): Promise<Model>;
  /**
   * @param sets  UV sets as files have them, each `2 × cornerCount`
   * @param at  the one that is worked on
   * @param name  of the file, without its ending
   * @returns the model first, and then the files that it names
   */
  write?(
    model: Model,
    sets: readonly Float64Array[],
    at: number,
    name: string,
  ): Promise<readonly [OutFile, ...OutFile[]]>;
  /** Of which source a written file is that source again, with nothing but UVs changed. */
  readonly repeats?: ModelSource['format'];
  /** Whether a file holds all UV sets, or one. */
  readonly sets?: 'all' | 'one';
  /** What a file cannot hold. */
  readonly lacks?: readonly Holding[];
}

const begins = (bytes: Uint8Array, word: string): boolean =>
  [...word].every((letter, i) => bytes[i] === letter.charCodeAt(0));

/** Every format that can be opened, those that are written first. */
export const FORMATS = [
  {
    name: 'OBJ',
    endings: ['obj'],
    alongside: ['mtl', 'png', 'jpg', 'jpeg', 'webp'],
    refuse: (bytes) =>
      bytes.subarray(0, 4096).includes(0) ? 'this is not a text file, as an OBJ file is.' : undefined,
    read: async (...file) => (await import('./readObjWithMaterials.ts')).readObjWithMaterials(...file),
    write: async (model, sets, at, name) =>
      (await import('./writeObjFiles.ts')).writeObjFiles(model, sets[at], name),
    repeats: 'obj',
    sets: 'one',
    lacks: ['gltfMaterials'],
  },
  {
    name: 'GLB',
    endings: ['glb'],
    refuse: (bytes) => (begins(bytes, 'glTF') ? undefined : 'this is not a GLB file.'),
    read: async (bytes, fileName) => (await import('./readGltf.ts')).readGltf(bytes, fileName),
    write: async (model, sets, _, name) => [
      { name: `${name}.glb`, bytes: await (await import('./writeGlb.ts')).writeGlb(model, sets) },
    ],
    repeats: 'glb',
    sets: 'all',
    lacks: ['polygons', 'groups', 'smoothing'],
  },
  {
    name: 'glTF',
    endings: ['gltf'],
    alongside: ['bin', 'png', 'jpg', 'jpeg', 'webp'],
    read: async (bytes, fileName, companions) =>
      (await import('./readGltf.ts')).readGltf(bytes, fileName, companions),
    write: async (model, sets, _, name) =>
      (await import('./writeGltfFiles.ts')).writeGltfFiles(model, sets, name),
    repeats: 'glb',
    sets: 'all',
    lacks: ['polygons', 'groups', 'smoothing'],
  },
  {
    name: 'PLY',
    endings: ['ply'],
    refuse: (bytes) => (begins(bytes, 'ply') ? undefined : 'this is not a PLY file.'),
    read: async (bytes, fileName) => (await import('./readPly.ts')).readPly(bytes, fileName),
    write: async (model, sets, at, name) => [
      { name: `${name}.ply`, bytes: (await import('./writePly.ts')).writePly(model, sets[at]) },
    ],
    repeats: 'ply',
    sets: 'one',
    lacks: ['objects', 'groups', 'materials', 'smoothingLost'],
  },
  {
    name: 'STL',
    endings: ['stl'],
    read: async (bytes, fileName) => (await import('./readStl.ts')).readStl(bytes, fileName),
  },
] as const satisfies readonly Format[];

type Written = Extract<(typeof FORMATS)[number], { readonly write: unknown }>;
/** The ending of a file that can be written. */
export type WrittenEnding = Written['endings'][number];

export const WRITTEN_FORMATS: readonly (Format & Written)[] = FORMATS.filter(
  (format): format is Written => 'write' in format,
);
export const WRITTEN_ENDINGS: readonly WrittenEnding[] = WRITTEN_FORMATS.flatMap(({ endings }) => endings);

/** What can be opened as a model, by ending, and what may be opened along with it. */
export const MODEL_ENDINGS: readonly string[] = FORMATS.flatMap(({ endings }) => endings);
export const ALONGSIDE: readonly string[] = [
  ...new Set(FORMATS.flatMap((format: Format) => format.alongside ?? [])),
];

/** The ending of a file name, without the dot and in small letters. */
export const endingOf = (fileName: string): string =>
  fileName.slice(fileName.lastIndexOf('.') + 1).toLowerCase();

export const formatOf = (fileName: string): Format | undefined =>
  FORMATS.find(({ endings }: Format) => endings.includes(endingOf(fileName)));

/** “OBJ, GLB, glTF, PLY or STL”. */
export const formatsInWords = (formats: readonly Pick<Format, 'name'>[], joint: 'and' | 'or'): string => {
  const names = formats.map(({ name }) => name);
  return `${names.slice(0, -1).join(', ')} ${joint} ${names[names.length - 1]}`;
};
