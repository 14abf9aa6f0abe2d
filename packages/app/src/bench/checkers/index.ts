import { arrows } from './arrows.ts';
import type { Checker } from './checker.ts';
import { gingham } from './gingham.ts';
import { numbers } from './numbers.ts';
import { ownImage } from './ownImage.ts';
import { planks } from './planks.ts';
import { twill } from './twill.ts';

/** Every checker, in the order in which they are offered. */
export const CHECKERS: readonly Checker[] = [gingham, numbers, arrows, planks, twill, ownImage];

export const checkerIndex = (name: string): number =>
  Math.max(
    CHECKERS.findIndex((checker) => checker.name === name),
    0,
  );

/** GLSL: all of them as one function of their number, `vec3 checker(int, vec2, vec2, vec2)`. */
export const checkerShader = (): string =>
  `${CHECKERS.map(
    ({ shader }, i) => `vec3 checker${i}(vec2 x, vec2 dx, vec2 dy) {${shader}
}`,
  ).join('\n')}
vec3 checker(int which, vec2 x, vec2 dx, vec2 dy) {
${CHECKERS.map((_, i) => `  if (which == ${i}) return checker${i}(x, dx, dy);`).join('\n')}
  return vec3(1.0);
}`;
