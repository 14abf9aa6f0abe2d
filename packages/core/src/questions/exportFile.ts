import { FILE_KINDS } from '../jobs/writeFile.ts';
import { choice, flag, otherwise, record, whole } from '../params.ts';
import { question } from './question.ts';

/** The model with its UVs, or the template to paint over, as a file. */
export const exportFile = question({
  name: 'export',
  params: record({
    kind: choice(...FILE_KINDS),
    /** Of the template: pixels a side, and what is drawn. */
    size: otherwise(whole(16, 16_384), 2048),
    fills: otherwise(flag(), true),
    edges: otherwise(flag(), true),
    numbers: otherwise(flag(), true),
  }),
  several: true,
  async answer(document, { kind, ...template }, context) {
    const bytes = await context.jobs.run('write', { document, kind, template }, context);
    const { name } = document.model;
    return { fileName: kind === 'svg' ? `${name}-template.svg` : `${name}.${kind}`, bytes };
  },
});
