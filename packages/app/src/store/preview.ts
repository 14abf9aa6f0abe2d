import type { Ellipses } from '@blunt-hem/core/measure/indicatrix';
import type { UvMatrix } from '@blunt-hem/core/surface/similarity';
import type { Ghost } from '../worker/protocol.ts';
import type { BoardLayer } from './boardLayer.ts';

/** An image of the artist's own, kept while the app is open. */
export interface OwnImage {
  readonly name: string;
  readonly bitmap: ImageBitmap;
}

/** What is shown before it is done, beside the true picture. */
export interface PreviewSlice {
  /** Shells as the act under the hand would lay them out. */
  readonly ghost: (Ghost & { readonly by?: 'cut' | 'sew' }) | undefined;
  /** A rectangle on the page under the hand: from x and y to x and y. */
  readonly band: readonly [number, number, number, number] | undefined;
  /** Tissot's ellipses of what is drawn. */
  readonly ellipses: Ellipses | undefined;
  /** Which way the texture is drawn out, of every triangle, while that is shown. */
  readonly direction: Float32Array | undefined;
  /** The artist's own checker. */
  readonly ownImage: OwnImage | undefined;
  /** The drawn vertex that a click would take. */
  readonly aim: number | undefined;
  /** Where the hand has the selected shells, before they are dropped. */
  readonly dragged: UvMatrix | undefined;
  /** Whether what is moved by hand takes hold of lines, and those that hold it: u and v of both ends. */
  readonly snaps: boolean;
  /** Whether the rest of a shell stays when points of it are moved, or follows. */
  readonly inside: 'stays' | 'follows';
  /** How far what lies near points goes along when they are moved by hand, heights of a tile, and how that lessens. */
  readonly pullRadius: number;
  readonly falloff: 'smooth' | 'linear';
  /** Where the hand has points, before they are dropped. */
  readonly pulled: UvMatrix | undefined;
  /** About what is turned and scaled, u and v; the middle of what is selected when absent. */
  readonly pivot: readonly [u: number, v: number] | undefined;
  /** Names of what takes hold of what is moved by hand; the usual ones when absent. */
  readonly snapKinds: ReadonlySet<string> | undefined;
  /** What of the shells the Board shows; all when absent. */
  readonly boardLayer: BoardLayer | undefined;
  readonly guides: readonly (readonly [u0: number, v0: number, u1: number, v1: number])[];
}

export const previewSlice: PreviewSlice = {
  ghost: undefined,
  band: undefined,
  ellipses: undefined,
  direction: undefined,
  ownImage: undefined,
  aim: undefined,
  dragged: undefined,
  snaps: true,
  inside: 'stays',
  pullRadius: 0,
  falloff: 'smooth',
  pulled: undefined,
  pivot: undefined,
  snapKinds: undefined,
  boardLayer: undefined,
  guides: [],
};
