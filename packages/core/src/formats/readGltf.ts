import { type JSONDocument, Logger } from '@gltf-transform/core';
import { strFromU8 } from 'fflate';
import { FileError } from '../errors.ts';
import type { Model } from '../mesh/model.ts';
import { baseName, type Companions } from './companions.ts';
import { decodersFor, isCompression } from './decoders.ts';
import { gltfIo } from './gltfIo.ts';
import { modelFromGltf } from './modelFromGltf.ts';

const AGAIN = 'Export the model again and open the new file.';

/**
 * Reads glTF, as one binary file or as JSON with the files it names beside it: every triangle primitive of the scene, moved to
 * where its node puts it. Nothing is ever fetched: a file that is named and was not opened along is asked for.
 *
 * @returns a model that remembers the file as plain GLB, so that an export can repeat it
 * @throws FileError
 */
export async function readGltf(
  bytes: Uint8Array,
  fileName: string,
  companions: Companions = new Map(),
): Promise<Model> {
  const io = gltfIo().setLogger(new Logger(Logger.Verbosity.SILENT));
  try {
    const json = isGlb(bytes) ? await io.binaryToJSON(bytes) : jsonDocument(bytes, fileName, companions);
    if (promisesMore(json.json, bytes.length + total(companions)))
      throw new FileError(fileName, 'it promises far more than it holds.', AGAIN);
    io.registerDependencies(await decodersFor(json.json.extensionsUsed ?? []));
    const document = await io.readJSON(json);
    const compressions = document.getRoot().listExtensionsUsed().filter(isCompression);
    for (const compression of compressions) compression.dispose();
    const plain = compressions.length === 0 && isGlb(bytes) ? bytes : await io.writeBinary(document);
    return modelFromGltf(document, plain, fileName);
  } catch (error) {
    if (error instanceof FileError) throw error;
    throw new FileError(fileName, 'this is not a complete glTF file.', AGAIN);
  }
}

/** Numbers promised for each byte, beyond which no compression is that good: believing it could take all memory. */
const MOST_PROMISED = 400;

/** Whether counts that stand in the file are larger than anything in it could be. */
function promisesMore(
  { accessors = [], bufferViews = [], extensionsUsed = [] }: JSONDocument['json'],
  held: number,
): boolean {
  const sum = (counts: readonly unknown[]) =>
    counts.reduce((total: number, count) => total + Number(count), 0);
  const counted = sum(accessors.map(({ count }) => count));
  const stored = sum(bufferViews.map(({ byteLength }) => byteLength / 8));
  if (!(counted + stored <= MOST_PROMISED * held)) return true;
  // Of those that differ in some places from others, or from zeros, each place is told of.
  if (!(sum(accessors.map(({ sparse }) => sparse?.count ?? 0)) <= held)) return true;
  if (extensionsUsed.some((name) => /draco|meshopt/i.test(name))) return false;
  // What is zero but for some places, such as how little a face moves that smiles, is as long as what is told in full.
  const told = accessors.filter(({ bufferView }) => bufferView !== undefined);
  const longest = told.reduce((most, { count }) => Math.max(most, count), 0);
  return accessors.some(({ bufferView, count }) => bufferView === undefined && count > longest);
}

const total = (companions: Companions): number =>
  [...companions.values()].reduce((sum, { length }) => sum + length, 0);

const isGlb = (b: Uint8Array): boolean => b[0] === 0x67 && b[1] === 0x6c && b[2] === 0x54 && b[3] === 0x46;

/** The JSON with what it names put beside it: from the files opened along, or from inside itself. */
function jsonDocument(bytes: Uint8Array, fileName: string, companions: Companions): JSONDocument {
  const json = JSON.parse(strFromU8(bytes)) as JSONDocument['json'];
  const resources: Record<string, Uint8Array<ArrayBuffer>> = {};
  for (const { uri } of json.buffers ?? []) {
    if (uri === undefined || uri.startsWith('data:')) continue;
    const companion = companions.get(baseName(uri));
    if (!companion) {
      throw new FileError(fileName, `it needs the file “${baseName(uri)}”.`, 'Open both together.');
    }
    resources[uri] = Uint8Array.from(companion);
  }
  // Pictures are carried along where they are at hand, and left out where not: a model opens without.
  for (const image of json.images ?? []) {
    if (image.uri === undefined || image.uri.startsWith('data:')) continue;
    resources[image.uri] = Uint8Array.from(companions.get(baseName(image.uri)) ?? []);
  }
  return { json, resources };
}
