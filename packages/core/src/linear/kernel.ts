import { kernelBase64 } from './kernelBytes.ts';

/** The functions of packages/kernel; all addresses are bytes into its memory. */
export interface Kernel {
  readonly memory: { readonly buffer: ArrayBuffer };
  factor(
    count: number,
    table: number,
    places: number,
    panels: number,
    stack: number,
    offsets: number,
  ): number;
  solve(count: number, table: number, rows: number, panels: number, x: number, work: number): void;
}

/** The little of WebAssembly that is needed; core has no browser types. */
interface WebAssemblyHost {
  WebAssembly: {
    Module: new (bytes: Uint8Array) => object;
    Memory: new (limits: { initial: number; maximum: number }) => Kernel['memory'];
    Instance: new (module: object, imports: object) => { readonly exports: object };
  };
  atob(text: string): string;
}

const host = globalThis as unknown as WebAssemblyHost;
const PAGE = 65_536;
export const MOST_BYTES = PAGE * PAGE;

let compiled: object | undefined;

/**
 * The kernel with a memory of its own, which goes when nobody holds it any more.
 *
 * @param bytes  how much memory it needs; a fresh memory is all zeros
 * @param stopped  asked between supernodes
 */
export function startKernel(bytes: number, stopped: () => boolean): Kernel {
  compiled ??= new host.WebAssembly.Module(Uint8Array.from(host.atob(kernelBase64), (c) => c.charCodeAt(0)));
  const memory = new host.WebAssembly.Memory({
    initial: Math.max(1, Math.ceil(bytes / PAGE)),
    maximum: PAGE,
  });
  const env = { memory, stopped: () => (stopped() ? 1 : 0) };
  const { exports } = new host.WebAssembly.Instance(compiled, { env });
  return Object.assign({ memory }, exports) as Kernel;
}
