import type { Totals } from '@blunt-hem/core/document/figures';
import type { Histogram } from '@blunt-hem/core/measure/histogram';
import type { BenchStore } from '../../store/bench.ts';
import type { BenchFigures } from '../../worker/protocol.ts';
import type { Overlay } from '../overlays/overlay.ts';

/** One figure of the measure strip. */
export interface Figure {
  readonly name: string;
  /** What it reads of the totals, in words; undefined where there is nothing to tell. */
  read(totals: Totals): string | undefined;
  /** What it reads of all the Bench knows, where totals are not enough. */
  readNow?(state: BenchStore): string | undefined;
  /** What it read before the artist's last act, where totals do not tell. */
  readBefore?(state: BenchStore): string | undefined;
  isBad?(totals: Totals, state: BenchStore): boolean;
  /** How the surface is spread over its values, in the colours of an overlay. */
  readonly bars?: { readonly overlay: Overlay; histogram(figures: BenchFigures): Histogram };
  /** Selects what causes it. */
  show?(state: BenchStore): void;
}
