import { buffersIn } from '../jobs/buffersIn.ts';
import { type JobOutput, type Jobs, localJobs } from '../jobs/index.ts';

/**
 * Jobs that are done here as a pool does them: results are handed over, so that one that gives something away that it has kept is found
 * out by whatever comes next; and what they are given is shared, so they may not change it.
 */
export const handedOver: Jobs = {
  ...localJobs,
  async run<N extends Parameters<Jobs['run']>[0]>(
    name: N,
    input: Parameters<Jobs['run']>[1],
    context: Parameters<Jobs['run']>[2],
  ) {
    const before = sumOf(input);
    const result = await localJobs.run(name, input, context);
    if (sumOf(input) !== before) throw new Error(`The job “${name}” has changed what it was given.`);
    return structuredClone(result, { transfer: buffersIn(result) }) as JobOutput<N>;
  },
};

/** A number that tells whether arrays of plain data have changed. */
function sumOf(value: unknown): number {
  if (ArrayBuffer.isView(value)) {
    let sum = value.byteLength;
    const bytes = new Uint8Array(value.buffer, value.byteOffset, value.byteLength);
    for (const byte of bytes) sum = (Math.imul(sum, 31) + byte) | 0;
    return sum;
  }
  if (typeof value !== 'object' || value === null) return 0;
  return Object.values(value).reduce((sum: number, each) => (Math.imul(sum, 31) + sumOf(each)) | 0, 1);
}
