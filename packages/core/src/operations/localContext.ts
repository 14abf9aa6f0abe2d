import { localJobs } from '../jobs/index.ts';
import { unattended } from '../progress.ts';
import type { OperationContext } from './operation.ts';

/** Nobody watches, nobody stops, everything is done here. */
export const localContext: OperationContext = { ...unattended, jobs: localJobs };
