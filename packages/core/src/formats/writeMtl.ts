import { strToU8 } from 'fflate';
import type { ImageUse, Material } from '../mesh/material.ts';

/** Statements of images, as `readMtl` reads them. Occlusion and metallic-roughness have none in this format. */
const STATEMENTS: Readonly<Partial<Record<ImageUse, string>>> = {
  colour: 'map_Kd',
  emissive: 'map_Ke',
  normal: 'norm',
  height: 'map_Bump',
};

/**
 * A Wavefront material library: colours (`Kd`, linear, 0 to 1) and images.
 *
 * @param names  of the materials, each once: see `objNames`
 * @param imageNames  file of each image, undefined where there is none
 */
export function writeMtl(
  materials: readonly Material[],
  names: readonly string[],
  imageNames: readonly (string | undefined)[],
): Uint8Array {
  const lines = materials.flatMap(({ colour, images = {} }, i) => [
    `newmtl ${names[i]}`,
    ...(colour ? [`Kd ${colour.join(' ')}`] : []),
    ...Object.entries(images).flatMap(([use, place]) => {
      const statement = STATEMENTS[use as ImageUse];
      const file = imageNames[place];
      return statement && file ? [`${statement} ${file}`] : [];
    }),
  ]);
  return strToU8(`${lines.join('\n')}\n`);
}
