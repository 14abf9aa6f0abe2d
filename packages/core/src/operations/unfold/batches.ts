import type { JobInput, JobName, JobOutput } from '../../jobs/index.ts';
import type { Progress } from '../../progress.ts';
import type { OperationContext } from '../operation.ts';

/** Small shells are solved several to a call: thousands of calls would cost more than the solving. */
const BATCH_TRIANGLES = 20_000;
const BATCH_SHELLS = 500;
/** Batches a worker gets at least, so that none is idle while another is at the last large one. */
const SHARES = 4;

interface Sized {
  readonly shell: { readonly triangles: Uint32Array };
}

/** Runs of tasks of about the same work, in order. */
export function batches<Task extends Sized>(tasks: readonly Task[], width: number): Task[][] {
  const all = tasks.reduce((sum, { shell }) => sum + shell.triangles.length / 3, 0);
  const most = width > 1 ? Math.min(BATCH_TRIANGLES, Math.ceil(all / (SHARES * width))) : BATCH_TRIANGLES;
  const found: Task[][] = [];
  let triangles = 0;
  for (const task of tasks) {
    const own = task.shell.triangles.length / 3;
    const batch = found.at(-1);
    if (!batch || triangles + own > most || batch.length === BATCH_SHELLS) {
      found.push([task]);
      triangles = own;
    } else {
      batch.push(task);
      triangles += own;
    }
  }
  return found;
}

/**
 * Solves shells in batches, as many at a time as there are workers.
 *
 * @param show  called with the progress of a shell that is solved by itself
 * @returns a result a task, in order
 */
export async function solveAll<N extends JobName, Task extends Sized & { readonly s: number }>(
  name: N,
  tasks: readonly Task[],
  inputOf: (batch: readonly Task[]) => JobInput<N>,
  context: OperationContext,
  show?: (task: Task, uv: Float64Array) => void,
): Promise<readonly [Task, JobOutput<N> extends readonly (infer R)[] ? R : never][]> {
  const { jobs, signal } = context;
  let done = 0;
  const results = await Promise.all(
    batches(tasks, jobs.width).map(async (batch) => {
      const single = batch.length === 1 && tasks.length <= jobs.width ? batch[0] : undefined;
      const report = ({ fraction = 0, figure, uv }: Progress) => {
        context.report({ fraction: (done + batch.length * fraction) / tasks.length, figure });
        if (single && uv) show?.(single, uv);
      };
      const found = (await jobs.run(name, inputOf(batch), { signal, report })) as readonly unknown[];
      done += batch.length;
      context.report({ fraction: done / tasks.length });
      return batch.map((task, i) => [task, found[i]] as const);
    }),
  );
  return results.flat() as never;
}
