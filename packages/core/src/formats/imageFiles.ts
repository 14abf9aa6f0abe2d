import type { ModelImage } from '../mesh/material.ts';
import type { Model } from '../mesh/model.ts';
import { fileNameOf } from './fileName.ts';
import { endingOf } from './formats.ts';
import { gltfIo } from './gltfIo.ts';
import type { OutFile } from './outFile.ts';

const ENDINGS: Readonly<Record<string, string>> = {
  'image/png': 'png',
  'image/jpeg': 'jpg',
  'image/webp': 'webp',
};

/** The images of a model as files with names of their own, in its order; undefined where an image was not opened along. */
export async function imageFiles({ images, source }: Model): Promise<(OutFile | undefined)[]> {
  const inFile =
    source.format === 'glb' && images.length > 0
      ? (await gltfIo().readBinary(source.bytes)).getRoot().listTextures()
      : [];
  const taken = new Set<string>();
  return images.map((image, i) => {
    const bytes = image.bytes ?? inFile[i]?.getImage() ?? undefined;
    const name = freeName(fileNameFor(image, i), taken);
    return bytes && { name, bytes };
  });
}

function fileNameFor({ name, mimeType }: ModelImage, place: number): string {
  const ending = ENDINGS[mimeType] ?? (endingOf(name) || 'png');
  const stem = name.replace(/\.[^.]*$/, '');
  return fileNameOf(stem || `image-${place + 1}`, ending);
}

/** The name, or where a file has it already the same with a number. */
function freeName(name: string, taken: Set<string>): string {
  const [, stem, ending] = /^(.*)(\.[^.]*)$/.exec(name) as unknown as [string, string, string];
  let free = name;
  for (let k = 2; taken.has(free.toLowerCase()); k++) free = `${stem}-${k}${ending}`;
  taken.add(free.toLowerCase());
  return free;
}
