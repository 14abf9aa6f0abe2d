import { openDocument, topologyOf } from '../document/document.ts';
import { emptyHistory } from '../document/history.ts';
import { StoppedError } from '../errors.ts';
import { type JobInput, type JobName, type JobOutput, type Jobs, localJobs } from '../jobs/index.ts';
import { findEdge } from '../mesh/connectivity.ts';
import { modelFromMesh } from '../mesh/model.ts';
import type { Context } from '../progress.ts';
import { memoryPersistence, type Persistence } from '../session/persistence.ts';
import { openSession, type SessionEvent } from '../session/session.ts';
import { cube } from './shapes.ts';

export const cubeDocument = () => openDocument(modelFromMesh('Cube', cube()));
const { connectivity } = topologyOf(cubeDocument().model);
export const edges = (...pairs: readonly (readonly [number, number])[]) =>
  pairs.map(([a, b]) => findEdge(connectivity, a, b));
export const LID = edges([4, 5], [5, 6], [6, 7], [7, 4]);

export function start(jobs: Jobs = localJobs, persistence: Persistence = memoryPersistence()) {
  const events: SessionEvent[] = [];
  const session = openSession({
    document: cubeDocument(),
    history: emptyHistory,
    persistence,
    jobs,
    emit: (event) => events.push(event),
  });
  return { session, events };
}

/** Jobs that take a while and can be stopped, but for those that are let through. */
export function slowJobs(slow: JobName, milliseconds = 100) {
  const told = { stops: 0, runs: 0 };
  const jobs: Jobs = {
    width: 1,
    async run<N extends JobName>(name: N, input: JobInput<N>, context: Context): Promise<JobOutput<N>> {
      if (name === slow) {
        told.runs++;
        for (let i = 0; i < milliseconds / 2; i++) {
          await new Promise((resolve) => setTimeout(resolve, 2));
          if (!context.signal.aborted) continue;
          told.stops++;
          throw new StoppedError();
        }
      }
      return localJobs.run(name, input, context);
    },
  };
  return { jobs, told };
}

/** Waits until something has come about. */
export async function until(holds: () => boolean): Promise<void> {
  while (!holds()) await new Promise((resolve) => setTimeout(resolve, 1));
}
