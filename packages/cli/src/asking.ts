import { type OpenOptions, openDocument } from '@blunt-hem/core/document/document';
import { emptyHistory } from '@blunt-hem/core/document/history';
import { localJobs } from '@blunt-hem/core/jobs/index';
import { memoryPersistence } from '@blunt-hem/core/session/persistence';
import { openSession, type Session } from '@blunt-hem/core/session/session';
import { opened } from './files.ts';

/** A session over a file, nothing of which is kept. */
export async function sessionOver(input: string, options?: OpenOptions): Promise<Session> {
  const document = openDocument(await opened(input), options);
  return openSession({ document, history: emptyHistory, persistence: memoryPersistence(), jobs: localJobs });
}
