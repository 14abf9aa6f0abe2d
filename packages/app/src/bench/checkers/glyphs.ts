import { CanvasTexture, LinearFilter, LinearMipmapLinearFilter } from 'three';
import { FONT } from '../../theme/theme.ts';

/** Pixels of a figure. */
const SIZE = 128;

/** The figures 0 to 9 side by side, white on black, drawn once. */
export function glyphTexture(onReady: () => void): CanvasTexture {
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [10 * SIZE, SIZE];
  const texture = new CanvasTexture(canvas);
  texture.minFilter = LinearMipmapLinearFilter;
  texture.magFilter = LinearFilter;
  texture.anisotropy = 16;
  const draw = (): void => {
    const pen = canvas.getContext('2d');
    if (!pen) return;
    pen.fillStyle = 'black';
    pen.fillRect(0, 0, canvas.width, canvas.height);
    pen.fillStyle = 'white';
    pen.font = font;
    pen.textAlign = 'center';
    pen.textBaseline = 'alphabetic';
    for (let digit = 0; digit < 10; digit++) pen.fillText(String(digit), (digit + 0.5) * SIZE, 0.92 * SIZE);
    texture.needsUpdate = true;
    onReady();
  };
  const font = `700 ${Math.round(1.12 * SIZE)}px ${FONT}`;
  draw();
  // With the font of the app once it is there.
  void document.fonts.load(font).then(draw);
  return texture;
}
