/** Small shells are solved several to a call: thousands of calls would cost more than the solving. */
const BATCH_TRIANGLES = 20_000;
const BATCH_SHELLS = 500;

/** Runs of jobs of about the same work, in order. */
export function* batches<Job extends { readonly shell: { readonly triangles: Uint32Array } }>(
  jobs: readonly Job[],
): Generator<readonly Job[]> {
  let batch: Job[] = [];
  let triangles = 0;
  for (const job of jobs) {
    const own = job.shell.triangles.length / 3;
    if (batch.length > 0 && (triangles + own > BATCH_TRIANGLES || batch.length === BATCH_SHELLS)) {
      yield batch;
      batch = [];
      triangles = 0;
    }
    batch.push(job);
    triangles += own;
  }
  if (batch.length > 0) yield batch;
}
