import { once } from '../once.ts';
import { type Context, heedStop } from '../progress.ts';
import { fusedKernel, plainKernel } from './kernelBytes.ts';

/** The functions of packages/kernel; all addresses are bytes into its memory, all lists 32-bit words. */
export interface Kernel {
  readonly memory: { readonly buffer: ArrayBuffer };
  /** Asked by the kernel every now and then while it works. */
  readonly watch: { signal: Context['signal'] | undefined };
  /** True until somebody has written into the memory: it is all zeros then. */
  fresh: boolean;
  begin(size: number, entries: number): number;
  analyse(size: number, pattern: number, block: number, ordering: number): number;
  supernodeCount(): number;
  rowCount(): number;
  panelSize(): number;
  orderAt(): number;
  tableAt(): number;
  rowsAt(): number;
  placesAt(): number;
  targetAt(): number;
  readonly factor: Factorise;
  readonly factorHermitian: Factorise;
  readonly solve: Solve;
  readonly solveHermitian: Solve;
}

type Factorise = (
  count: number,
  table: number,
  places: number,
  panels: number,
  stack: number,
  offsets: number,
) => number;
type Solve = (
  count: number,
  table: number,
  rows: number,
  panels: number,
  x: number,
  size: number,
  sides: number,
  work: number,
) => number;

/** What `analyse` and `factor` return when they were stopped. */
export const STOPPED = -2;

/** The little of WebAssembly that is needed; core has no browser types. */
interface WebAssemblyHost {
  WebAssembly: {
    Module: new (bytes: Uint8Array) => object;
    Memory: new (limits: { initial: number; maximum: number }) => Kernel['memory'];
    Instance: new (module: object, imports: object) => { readonly exports: object };
    validate(bytes: Uint8Array): boolean;
  };
  atob(text: string): string;
}

const host = globalThis as unknown as WebAssemblyHost;
const PAGE = 65_536;
export const MOST_BYTES = PAGE * PAGE;

const bytesOf = (base64: string) => Uint8Array.from(host.atob(base64), (c) => c.charCodeAt(0));

/** Whether the engine has relaxed SIMD, and so fused multiply-add. */
export const hasFusedKernel = (): boolean => host.WebAssembly.validate(bytesOf(fusedKernel));

const compiledKernel = once(
  () => new host.WebAssembly.Module(bytesOf(hasFusedKernel() ? fusedKernel : plainKernel)),
);

/**
 * Kernels that nobody uses, up to a middling size: a fresh memory costs a page fault every 4 kB, a third of the time a
 * shell of 20 000 triangles takes.
 */
const idle: Kernel[] = [];
const MOST_IDLE = 2;
/** 64 MB; pages not yet touched take no room. */
const REUSED_BYTES = 1024 * PAGE;

/**
 * A kernel with at least so much memory, whose content may be anything. It goes when nobody holds it any more, or
 * sooner to the next user by `returnKernel`.
 */
export function takeKernel(bytes: number, signal?: Context['signal']): Kernel {
  heedStop(signal);
  const kernel = (bytes <= REUSED_BYTES && idle.pop()) || newKernel(Math.max(bytes, REUSED_BYTES));
  kernel.watch.signal = signal;
  return kernel;
}

/** Hands a kernel on; its user must not touch it any more. */
export function returnKernel(kernel: Kernel): void {
  kernel.watch.signal = undefined;
  kernel.fresh = false;
  if (kernel.memory.buffer.byteLength === REUSED_BYTES && idle.length < MOST_IDLE) idle.push(kernel);
}

function newKernel(bytes: number): Kernel {
  const memory = new host.WebAssembly.Memory({ initial: Math.ceil(bytes / PAGE), maximum: PAGE });
  const watch: Kernel['watch'] = { signal: undefined };
  const env = { memory, stopped: () => (watch.signal?.aborted ? 1 : 0) };
  const { exports } = new host.WebAssembly.Instance(compiledKernel(), { env });
  return Object.assign({ memory, watch, fresh: true }, exports) as Kernel;
}
