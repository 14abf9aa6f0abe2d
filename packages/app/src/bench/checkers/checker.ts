/**
 * A pattern on the surface that shows scale and direction, worked out in the shader for every pixel: it costs nothing a face, and is as
 * sharp from near as from far.
 */
export interface Checker {
  readonly name: string;
  readonly label: string;
  /** For Help, what to look for. */
  readonly help: string;
  /**
   * GLSL: the body of a function that returns the colour, a `vec3`, at a place `x` in squares of the checker, u to the right and v up.
   * `dx` and `dy` tell how `x` changes from pixel to pixel. What `COMMON` offers is at hand.
   */
  readonly shader: string;
}

/** What patterns are made of. */
export const COMMON = /* glsl */ `
uniform sampler2D uGlyphs;
uniform sampler2D uImage;
uniform float uImageAspect;

const vec3 CLOTH = vec3(0.97, 0.95, 0.90);
const vec3 PINE = vec3(0.42, 0.66, 0.62);
const vec3 OCHRE = vec3(0.88, 0.70, 0.50);
const vec3 INK = vec3(0.13, 0.19, 0.18);

/** A wave of stripes, half on and half off, smoothed over what one pixel covers. */
float stripes(float x) {
  float width = fwidth(x);
  float wave = clamp((abs(fract(x) - 0.5) - 0.25) / max(width, 1e-5) + 0.5, 0.0, 1.0);
  return mix(wave, 0.5, clamp(width - 0.4, 0.0, 1.0));
}

/** 1 where a distance is below zero, smoothed over a pixel of so many units. */
float inside(float away, float pixel) {
  return clamp(0.5 - away / max(pixel, 1e-5), 0.0, 1.0);
}

/** 0 where a square is large enough to be drawn in, 1 where only its mean can be seen. */
float blur(vec2 dx, vec2 dy, float from, float to) {
  return smoothstep(from, to, max(length(dx), length(dy)));
}

/** A figure, 0 to 9, in a unit box; 0 outside. */
float glyph(float digit, vec2 at, vec2 dx, vec2 dy) {
  if (at.x < 0.0 || at.x > 1.0 || at.y < 0.0 || at.y > 1.0) return 0.0;
  return textureGrad(uGlyphs, vec2((digit + at.x) / 10.0, at.y), vec2(dx.x / 10.0, dx.y), vec2(dy.x / 10.0, dy.y)).r;
}
`;
