import { basename } from 'node:path';
import { openDocument } from '@blunt-hem/core/document/document';
import { emptyHistory } from '@blunt-hem/core/document/history';
import { localJobs } from '@blunt-hem/core/jobs/index';
import { memoryPersistence } from '@blunt-hem/core/session/persistence';
import { openSession } from '@blunt-hem/core/session/session';
import { opened, save } from '../files.ts';

/** Repairs what is safe, and writes the model. */
export async function run(input: string, options: { out: string; tolerance: number }): Promise<object> {
  const document = openDocument(await opened(input));
  const session = openSession({
    document,
    history: emptyHistory,
    persistence: memoryPersistence(),
    jobs: localJobs,
  });
  const { notes } = await session.perform('repair-safe', { tolerance: options.tolerance });
  await save(options.out, session.document);
  return { file: basename(input), out: basename(options.out), notes };
}
