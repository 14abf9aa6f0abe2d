import { type Project, writeProject } from '../keeping/projectFile.ts';
import type { Job } from './job.ts';

/** A project as the bytes of a file. */
export const writeProjectFile: Job<'write-project', Project, Uint8Array> = {
  name: 'write-project',
  run: writeProject,
};
