import type { Material, ModelImage } from '../mesh/material.ts';
import type { Model, ModelSource } from '../mesh/model.ts';
import { baseName, type Companions } from './companions.ts';
import { type MtlMaterial, readMtl } from './readMtl.ts';
import { readObj } from './readObj.ts';

/**
 * Reads an OBJ file with the colours and images that material libraries opened along with it give its materials. An image that a
 * library names and that was not opened along is kept by its name.
 *
 * @throws FileError with what is wrong and what to do
 */
export function readObjWithMaterials(
  bytes: Uint8Array,
  fileName: string,
  companions: Companions = new Map(),
  report?: (fraction: number) => void,
): Model {
  const model = readObj(bytes, fileName, report);
  const libraries = [...companions].filter(([name]) => /\.mtl$/i.test(name));
  const known = new Map(libraries.flatMap(([, library]) => [...readMtl(library)]));
  const images: ModelImage[] = [];
  const numbers = new Map<string, number>();
  const imageOf = (file: string): number => {
    const name = baseName(file);
    const number = numbers.get(name) ?? images.push(image(name, companions.get(name))) - 1;
    numbers.set(name, number);
    return number;
  };
  const described = ({ name }: Material): Material => {
    const { colour, images = {} } = known.get(name) ?? ({} as Partial<MtlMaterial>);
    const places = Object.entries(images).map(([use, file]) => [use, imageOf(file)]);
    return {
      name,
      ...(colour && { colour }),
      ...(places.length > 0 && { images: Object.fromEntries(places) }),
    };
  };
  const source: ModelSource = {
    format: 'obj',
    bytes,
    ...(libraries.length > 0 && {
      libraries: libraries.map(([name, library]) => ({ name, bytes: library })),
    }),
  };
  return { ...model, materials: model.materials.map(described), images, source };
}

const image = (name: string, bytes: Uint8Array | undefined): ModelImage => ({
  name,
  mimeType: bytes
    ? mimeTypeOfBytes(bytes)
    : (MIME_TYPES[name.slice(name.lastIndexOf('.') + 1).toLowerCase()] ?? ''),
  ...(bytes && { bytes }),
});

const MIME_TYPES: Readonly<Record<string, string>> = {
  png: 'image/png',
  jpg: 'image/jpeg',
  jpeg: 'image/jpeg',
  webp: 'image/webp',
};

/** What a file begins with, whatever its name: PNG (ISO 15948), JPEG (ISO 10918), WebP (RFC 9649); empty where it is none of them. */
function mimeTypeOfBytes(bytes: Uint8Array): string {
  const at = (from: number, word: string) =>
    [...word].every((letter, i) => bytes[from + i] === letter.charCodeAt(0));
  if (at(0, '\x89PNG\r\n\x1a\n')) return 'image/png';
  if (at(0, '\xff\xd8\xff')) return 'image/jpeg';
  return at(0, 'RIFF') && at(8, 'WEBP') ? 'image/webp' : '';
}
