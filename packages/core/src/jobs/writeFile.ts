import { strToU8 } from 'fflate';
import { current, type HemDocument } from '../document/document.ts';
import { writeGlb } from '../formats/writeGlb.ts';
import { writeObj } from '../formats/writeObj.ts';
import { type TemplateOptions, writeTemplate } from '../formats/writeTemplate.ts';
import { toFile } from '../surface/tiles.ts';
import type { Job } from './job.ts';

export const FILE_KINDS = ['obj', 'glb', 'svg'] as const;
export type FileKind = (typeof FILE_KINDS)[number];

export interface WriteTask {
  readonly document: HemDocument;
  readonly kind: FileKind;
  /** Of the template, `svg`. */
  readonly template: TemplateOptions;
}

/** The model with its UVs, or the template, as the bytes of a file. */
export const writeFile: Job<'write', WriteTask, Uint8Array> = {
  name: 'write',
  run({ document, kind, template }) {
    switch (kind) {
      case 'obj':
        return writeObj(document.model, toFile(current(document).uv, document.tiles));
      case 'glb':
        return writeGlb(
          document.model,
          document.uvSets.map(({ uv, away }) => toFile(uv, (away ?? document).tiles)),
        );
      case 'svg':
        return strToU8(writeTemplate(document, template));
    }
  },
};
