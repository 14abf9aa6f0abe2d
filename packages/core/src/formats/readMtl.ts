import { strFromU8 } from 'fflate';
import type { Colour, ImageUse } from '../mesh/material.ts';
import { objLines } from './objLines.ts';

/** A material of a Wavefront library. */
export interface MtlMaterial {
  readonly colour?: Colour;
  /** Files that it names, as it names them. */
  readonly images: Readonly<Partial<Record<ImageUse, string>>>;
}

/** Statements that name an image, in small letters. */
const IMAGES: Readonly<Record<string, ImageUse>> = {
  map_kd: 'colour',
  map_ke: 'emissive',
  norm: 'normal',
  bump: 'height',
  map_bump: 'height',
};

/** How many words follow each option of an image; those of `-o`, `-s` and `-t` may be fewer, and are numbers. */
const OPTION_WORDS: Readonly<Record<string, number>> = {
  '-blendu': 1,
  '-blendv': 1,
  '-boost': 1,
  '-mm': 2,
  '-o': 3,
  '-s': 3,
  '-t': 3,
  '-texres': 1,
  '-clamp': 1,
  '-bm': 1,
  '-imfchan': 1,
  '-type': 1,
  '-cc': 1,
};

/**
 * Diffuse colours (`Kd r g b`) and images of a Wavefront material library; other statements are passed over.
 *
 * @returns its materials by name, colours linear, 0 to 1
 */
export function readMtl(bytes: Uint8Array): Map<string, MtlMaterial> {
  const materials = new Map<string, MtlMaterial>();
  let name: string | undefined;
  const add = (some: Partial<MtlMaterial>): void => {
    if (name !== undefined) materials.set(name, { images: {}, ...materials.get(name), ...some });
  };
  for (const { text } of objLines(strFromU8(bytes))) {
    const [word, ...rest] = text.split(/\s+/);
    const use = IMAGES[word.toLowerCase()];
    if (word === 'newmtl') {
      name = text.slice(word.length).trim();
      add({});
    } else if (word === 'Kd') {
      const colour = rest.slice(0, 3).map(Number);
      if (colour.length === 3 && colour.every((x) => x >= 0 && x <= 1))
        add({ colour: colour as unknown as Colour });
    } else if (use && name !== undefined) {
      const file = imageFile(text.slice(word.length));
      if (file) add({ images: { ...materials.get(name)?.images, [use]: file } });
    }
  }
  return materials;
}

/** The file that a statement names, behind its options: names may hold spaces. */
function imageFile(statement: string): string {
  let rest = statement.trim();
  for (;;) {
    const [option] = rest.split(/\s/, 1);
    const words = OPTION_WORDS[option];
    if (words === undefined) return rest;
    rest = rest.slice(option.length).trimStart();
    const isNumbers = words === 3;
    for (let i = 0; i < words; i++) {
      const [word] = rest.split(/\s/, 1);
      if (isNumbers && !Number.isFinite(Number(word))) break;
      rest = rest.slice(word.length).trimStart();
    }
  }
}
