import type { Checker } from './checker.ts';

export const arrows: Checker = {
  name: 'arrows',
  label: 'Arrows',
  help: 'Every arrow points up in the texture',
  shader: /* glsl */ `
  vec2 cell = floor(x);
  vec2 at = x - cell - 0.5;
  vec3 ground = mod(cell.x + cell.y, 2.0) > 0.5 ? CLOTH : mix(CLOTH, OCHRE, 0.45);
  float pixel = max(length(dx), length(dy));
  float head = max(abs(at.x) * 1.3 + at.y - 0.36, -at.y + 0.02);
  float shaft = max(abs(at.x) - 0.07, max(at.y - 0.05, -at.y - 0.36));
  vec3 square = mix(ground, PINE * 0.62, inside(min(head, shaft), pixel));
  return mix(square, mix(CLOTH, PINE, 0.3), blur(dx, dy, 0.35, 0.9));`,
};
