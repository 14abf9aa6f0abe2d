import { readFileSync } from 'node:fs';
import type { HemDocument } from '../document/document.ts';
import { ARRAY_KINDS } from '../persistence/packed.ts';

/** Projects and stores as each version so far has kept them, written by that version: `kept/`. */

export const keptFile = (name: string): Uint8Array =>
  new Uint8Array(readFileSync(new URL(`kept/${name}`, import.meta.url)));

/** The rows of a store, table by table. */
export function keptStore(name: string): {
  readonly version: number;
  readonly rows: Readonly<Record<string, readonly object[]>>;
} {
  return JSON.parse(Buffer.from(keptFile(name)).toString(), (_, value) => {
    if (typeof value?.data !== 'string') return value;
    const bytes = Uint8Array.from(Buffer.from(value.data, 'base64'));
    return new ARRAY_KINDS[value.array as keyof typeof ARRAY_KINDS](bytes.buffer);
  });
}

/** What can be seen of a document whatever version kept it. */
export interface KeptState {
  readonly faces: number;
  readonly seams: readonly number[];
  readonly uv: readonly (number | null)[];
}

/** The states the kept project went through: before its first act, after each of its six. Five of them stand. */
export const keptStates = JSON.parse(Buffer.from(keptFile('states.json')).toString()) as KeptState[];

export const keptState = ({ model, seams, uvSets }: HemDocument): KeptState => ({
  faces: model.mesh.faceStart.length - 1,
  seams: [...seams].flatMap((mark, e) => (mark ? [e] : [])),
  uv: [...uvSets[0].uv].map((x) => (Number.isNaN(x) ? null : x)),
});
