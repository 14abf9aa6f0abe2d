import { note, notify } from './acts.ts';
import type { BenchStore } from './bench.ts';
import { useBench } from './bench.ts';

/** Squares of the checker in the height of a tile, whatever their size is told in. */
export function squaresAcross({
  checkerUnit,
  repeats,
  squareTexels,
  squareUnits,
  figures,
  tiles,
}: Pick<
  BenchStore,
  'checkerUnit' | 'repeats' | 'squareTexels' | 'squareUnits' | 'figures' | 'tiles'
>): number {
  if (checkerUnit === 'texels') return tiles[0].height / squareTexels;
  const density = figures?.totals.density;
  if (checkerUnit === 'units' && density) return 1 / (squareUnits * density);
  return repeats;
}

/** Images are shown no larger than this, pixels a side. */
const MOST_PIXELS = 4096;

/** Takes an image as the checker; what is none is told, and changes nothing. */
export async function takeImage(file: File): Promise<void> {
  try {
    const whole = await createImageBitmap(file, { imageOrientation: 'flipY' });
    const { width, height } = whole;
    const scale = MOST_PIXELS / Math.max(width, height);
    const bitmap =
      scale < 1
        ? await createImageBitmap(whole, {
            resizeWidth: Math.max(1, Math.round(scale * width)),
            resizeHeight: Math.max(1, Math.round(scale * height)),
            resizeQuality: 'high',
          })
        : whole;
    useBench.getState().ownImage?.bitmap.close();
    useBench.setState({ ownImage: { name: file.name, bitmap }, checker: true, checkerKind: 'image' });
    if (scale < 1) {
      whole.close();
      note(
        `${file.name} has ${width} × ${height} pixels; it is shown with ${bitmap.width} × ${bitmap.height}.`,
      );
    }
  } catch {
    notify({
      tone: 'error',
      text: `${file.name} could not be shown: it is no image that this browser reads, or too large for it. Use a PNG, JPEG or WebP.`,
    });
  }
}
