import { basename } from 'node:path';
import { type OpenOptions, openDocument } from '@blunt-hem/core/document/document';
import { emptyHistory } from '@blunt-hem/core/document/history';
import { FileError } from '@blunt-hem/core/errors';
import { type Jobs, localJobs } from '@blunt-hem/core/jobs/index';
import { titleOf } from '@blunt-hem/core/operations/sets/knownSet';
import { memoryPersistence } from '@blunt-hem/core/session/persistence';
import { openSession, type Session } from '@blunt-hem/core/session/session';
import { opened } from './files.ts';

/** What a session is opened with, beside its file. */
export interface SessionOptions extends OpenOptions {
  readonly emit?: Parameters<typeof openSession>[0]['emit'];
  /** Where jobs run; on this thread when absent. */
  readonly jobs?: Jobs;
}

/** A session over a file, nothing of which is kept. */
export async function sessionOver(
  input: string,
  { emit, jobs = localJobs, ...options }: SessionOptions = {},
): Promise<Session> {
  const document = openDocument(await opened(input), options);
  return openSession({
    document,
    history: emptyHistory,
    persistence: memoryPersistence(),
    jobs,
    emit,
  });
}

/**
 * The same on the UVs that a file has.
 *
 * @param name  of the UV set that is meant; the first when absent
 * @throws FileError when it has none, or none of that name
 */
export async function sessionOverUvs(
  input: string,
  name?: string,
  options?: SessionOptions,
): Promise<Session> {
  const session = await sessionOver(input, options);
  const { model, uvSets } = session.document;
  if (model.uvSets.length === 0)
    throw new FileError(basename(input), 'there are no UVs in this file.', 'Unfold it first.');
  if (name === undefined) return session;
  const set = uvSets.find((each) => titleOf(each) === name);
  if (!set)
    throw new FileError(
      basename(input),
      `it has no UV set “${name}”.`,
      `There ${uvSets.length === 1 ? 'is' : 'are'} ${uvSets.map((each) => `“${titleOf(each)}”`).join(', ')}.`,
    );
  await session.perform('use-uv-set', { set: set.id });
  return session;
}
