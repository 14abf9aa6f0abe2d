import { basename } from 'node:path';
import { openDocument } from '@blunt-hem/core/document/document';
import { emptyHistory } from '@blunt-hem/core/document/history';
import { FileError } from '@blunt-hem/core/errors';
import { localJobs } from '@blunt-hem/core/jobs/index';
import { memoryPersistence } from '@blunt-hem/core/session/persistence';
import { openSession } from '@blunt-hem/core/session/session';
import { opened } from '../files.ts';
import { measured } from '../measured.ts';

/** The figures of the UVs a file has. */
export async function run(input: string): Promise<object> {
  const document = openDocument(await opened(input));
  if (document.model.uvSets.length === 0)
    throw new FileError(basename(input), 'there are no UVs in this file.', 'Unfold it first.');
  const session = openSession({
    document,
    history: emptyHistory,
    persistence: memoryPersistence(),
    jobs: localJobs,
  });
  return { file: basename(input), ...(await measured(session)) };
}
