import { plainDocument } from '../../document/document.ts';
import { record } from '../../params.ts';
import { operation } from '../operation.ts';
import { losses } from './losses.ts';
import { tolerance } from './repair.ts';

/** Repairs all that can be repaired without changing a shape, and says what it did. */
export const repairSafe = operation({
  name: 'repair-safe',
  stage: 'intake',
  params: record({ tolerance }),
  label: () => 'Repair all that is safe',
  doing: 'Repairing',
  async run(document, options, context) {
    const task = { document: plainDocument(document), options };
    const { changes, notes } = await context.jobs.run('repair', task, context);
    return { changes, notes: changes.length > 0 ? [...notes, ...losses(document)] : notes };
  },
});
