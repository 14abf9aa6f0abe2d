import type { Checker } from './checker.ts';

/** Column above row, counted from the lower left of the tile, with a hem along the lower side of every square. */
export const numbers: Checker = {
  name: 'numbers',
  label: 'Numbered squares',
  help: 'Column over row of every square, with a hem along its lower side: what is mirrored or upside down cannot be read',
  shader: /* glsl */ `
  vec2 cell = floor(x);
  vec2 at = x - cell;
  bool odd = mod(cell.x + cell.y, 2.0) > 0.5;
  vec3 ground = odd ? CLOTH : mix(CLOTH, PINE, 0.55);
  vec3 square = ground;
  float pixel = max(length(dx), length(dy));
  square = mix(square, OCHRE * 0.9, inside(at.y - 0.09, pixel));
  vec2 number = mod(cell, 100.0);
  vec4 digits = vec4(floor(number.x / 10.0), mod(number.x, 10.0), floor(number.y / 10.0), mod(number.y, 10.0));
  vec2 size = vec2(0.36, 0.38);
  float ink = 0.0;
  for (int i = 0; i < 4; i++) {
    vec2 corner = vec2(i % 2 == 0 ? 0.14 : 0.5, i < 2 ? 0.54 : 0.14);
    ink = max(ink, glyph(digits[i], (at - corner) / size, dx / size, dy / size));
  }
  square = mix(square, INK, ink);
  return mix(square, mix(CLOTH, PINE, 0.3), blur(dx, dy, 0.35, 0.9));`,
};
