import { plainDocument } from '../document/document.ts';
import { PADDING, TEXTURE } from '../document/judgement.ts';
import type { LayoutReport } from '../jobs/inspectLayout.ts';
import { number, otherwise, record, whole } from '../params.ts';
import { question } from './question.ts';

/** How shells lie together, and what is wrong with it. */
export const inspection = question({
  name: 'inspection',
  params: record({
    /** Side of the texture, and texels that shells should be apart. */
    texture: otherwise(whole(16, 65_536), TEXTURE),
    padding: otherwise(number(0, 512), PADDING),
  }),
  background: true,
  answer: (document, options, context): Promise<LayoutReport> =>
    context.jobs.run('inspect', { document: plainDocument(document), options }, context),
});
