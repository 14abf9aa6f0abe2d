import type { Checker } from './checker.ts';

/** Boards lie along u, three squares long and one high, each row set off from the next. */
export const planks: Checker = {
  name: 'planks',
  label: 'Planks',
  help: 'Boards along the texture: for what has a grain',
  shader: /* glsl */ `
  float row = floor(x.y);
  float along = x.x / 3.0 + 0.37 * row;
  float board = floor(along);
  vec2 at = vec2(fract(along) * 3.0, fract(x.y));
  float tint = fract(sin(board * 12.9898 + row * 78.233) * 43758.5453);
  vec3 wood = mix(vec3(0.80, 0.66, 0.48), vec3(0.66, 0.50, 0.34), tint);
  float pixel = max(length(dx), length(dy));
  float grain = stripes(x.y * 5.0 + 0.35 * sin(x.x * 2.0 + tint * 9.0));
  wood *= 1.0 - 0.10 * grain * (1.0 - blur(dx, dy, 0.04, 0.12));
  float gap = min(min(at.x, 3.0 - at.x), min(at.y, 1.0 - at.y));
  vec3 plank = mix(wood, INK, 0.8 * inside(gap - 0.035, pixel));
  return mix(plank, vec3(0.70, 0.55, 0.39), blur(dx, dy, 0.35, 0.9));`,
};
