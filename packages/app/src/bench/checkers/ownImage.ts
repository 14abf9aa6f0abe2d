import type { Checker } from './checker.ts';

/** An image of the artist's own, which fills a square of the checker by its width. */
export const ownImage: Checker = {
  name: 'image',
  label: 'Own image',
  help: 'A picture of your own, dropped on a pane or chosen',
  shader: /* glsl */ `
  vec2 scale = vec2(1.0, uImageAspect);
  return textureGrad(uImage, fract(x * scale), dx * scale, dy * scale).rgb;`,
};
