import { strToU8 } from 'fflate';
import type { HemDocument } from '../document/document.ts';
import { setsForFile } from '../document/setsForFile.ts';
import { formatOf, WRITTEN_ENDINGS, type WrittenEnding } from '../formats/formats.ts';
import { type TemplateOptions, writeTemplate } from '../formats/writeTemplate.ts';
import type { Job } from './job.ts';

/** Endings of files that can be written: models, and the template. */
export type FileKind = WrittenEnding | 'svg';
export const FILE_KINDS: readonly FileKind[] = [...WRITTEN_ENDINGS, 'svg'];

export interface WriteTask {
  readonly document: HemDocument;
  readonly kind: FileKind;
  /** Of the template, `svg`. */
  readonly template: TemplateOptions;
}

/** The model with its UVs, or the template, as the bytes of a file. */
export const writeFile: Job<'write', WriteTask, Uint8Array> = {
  name: 'write',
  async run({ document, kind, template }) {
    if (kind === 'svg') return strToU8(writeTemplate(document, template));
    const { sets, at } = setsForFile(document);
    const written = await formatOf(`.${kind}`)?.write?.(document.model, sets, at);
    if (!written) throw new Error(`Nothing writes .${kind}.`);
    return written;
  },
};
