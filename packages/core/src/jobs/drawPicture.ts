import type { HemDocument } from '../document/document.ts';
import { drawPicture as draw } from '../formats/drawPicture.ts';
import type { Job } from './job.ts';

export interface PictureTask {
  readonly document: HemDocument;
  readonly width: number;
  readonly height: number;
  /** 1 for each face that is brought into view and marked. */
  readonly marked?: Uint8Array;
}

/** A small picture of a model, RGBA. */
export const drawPicture: Job<'picture', PictureTask, Uint8ClampedArray> = {
  name: 'picture',
  run: ({ document, width, height, marked }) => draw(document, width, height, marked),
};
