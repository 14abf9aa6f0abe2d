import { strFromU8 } from 'fflate';
import { objLines } from './objLines.ts';

/**
 * The diffuse colours (`Kd r g b`) of a Wavefront material library; other statements are passed over.
 *
 * @returns red, green and blue of each material by name, linear, 0 to 1
 */
export function readMtl(bytes: Uint8Array): Map<string, readonly number[]> {
  const colours = new Map<string, readonly number[]>();
  let name: string | undefined;
  for (const { text } of objLines(strFromU8(bytes))) {
    const [word, ...rest] = text.split(/\s+/);
    if (word === 'newmtl') name = text.slice(word.length).trim();
    else if (word === 'Kd' && name !== undefined) {
      const colour = rest.slice(0, 3).map(Number);
      if (colour.length === 3 && colour.every((x) => x >= 0 && x <= 1)) colours.set(name, colour);
    }
  }
  return colours;
}
