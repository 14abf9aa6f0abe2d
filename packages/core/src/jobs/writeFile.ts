import { strToU8, type Zippable, zipSync } from 'fflate';
import { carryAlong } from '../document/carryAlong.ts';
import type { HemDocument } from '../document/document.ts';
import { setsForFile } from '../document/setsForFile.ts';
import { WRITTEN_ENDINGS, type WrittenEnding } from '../formats/formats.ts';
import type { OutFile } from '../formats/outFile.ts';
import { writeModel } from '../formats/writeModel.ts';
import { type TemplateOptions, writeTemplate } from '../formats/writeTemplate.ts';
import { withoutFaces } from '../mesh/edit.ts';
import type { Job } from './job.ts';

/** Endings of files that can be written: models, and the template. */
export type FileKind = WrittenEnding | 'svg';
export const FILE_KINDS: readonly FileKind[] = [...WRITTEN_ENDINGS, 'svg'];

export interface WriteTask {
  readonly document: HemDocument;
  /** Its ending says what is written. */
  readonly fileName: string;
  /** Faces that are left out of a model. */
  readonly without?: readonly number[];
  /** Of the template, `svg`. */
  readonly template?: TemplateOptions;
}

/** The model with its UVs, or the template, as the bytes of a file; a model that names other files as a zip with all of them. */
export const writeFile: Job<'write', WriteTask, OutFile> = {
  name: 'write',
  async run({ document, fileName, without = [], template }) {
    if (template) return { name: fileName, bytes: strToU8(writeTemplate(document, template)) };
    const chosen =
      without.length > 0 ? carryAlong(document, withoutFaces(document.model.mesh, without)) : document;
    const files = await writeModel(chosen.model, setsForFile(chosen), fileName);
    return files.length === 1
      ? files[0]
      : { name: `${fileName.replace(/\.[^.]*$/, '')}.zip`, bytes: zipped(files) };
  },
};

/** Pictures are packed as they are. */
const PACKED = /\.(png|jpe?g|webp)$/i;

/** The same for whoever packs it, whenever. */
const EPOCH = new Date(1980, 0, 1);

export function zipped(files: readonly OutFile[]): Uint8Array {
  const entries: Zippable = {};
  for (const { name, bytes } of files) entries[name] = [bytes, { level: PACKED.test(name) ? 0 : 6 }];
  return zipSync(entries, { mtime: EPOCH });
}
