import type { BufferGeometry, Object3D } from 'three';
import type { BenchStore } from '../../store/bench.ts';
import type { Pane } from '../../store/selection.ts';
import type { DrawnUv } from '../panes/drawnUv.ts';

/** What every layer draws from. */
export interface Scenery {
  /** One vertex for every corner of every triangle; the same buffers in both panes. */
  readonly geometry: BufferGeometry;
  /** Where the flat is drawn: as it is, or as it would be. */
  readonly drawn: DrawnUv;
}

/** How the pane looks at its scene in one frame. */
export interface FrameView {
  /** Units of the scene that a pixel covers, where the pane looks. */
  readonly perPixel: number;
  /** Without what is selected and pointed at. */
  readonly plain?: boolean;
}

/** A layer that stands in a scene. */
export interface Drawn {
  readonly object: Object3D;
  /** What it shows hangs on these values alone: it is brought up to date when one of them differs, and not otherwise. */
  needs(state: BenchStore): readonly unknown[];
  update(state: BenchStore): void;
  /** Before each frame. */
  frame?(view: FrameView): void;
  dispose(): void;
}

/** Something drawn in a pane. */
export interface Layer {
  readonly name: string;
  readonly pane: Pane;
  /** True for what is no part of a picture: what is selected and pointed at. */
  readonly passing?: true;
  make(scenery: Scenery): Drawn;
}
