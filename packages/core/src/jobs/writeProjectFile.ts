import { type Project, writeProjectChecked } from '../persistence/projectFile.ts';
import type { Job } from './job.ts';

/** A project as the bytes of a file, which were read back. */
export const writeProjectFile: Job<'write-project', Project, Uint8Array> = {
  name: 'write-project',
  run: (project) => writeProjectChecked(project),
};
