import type { Checker } from './checker.ts';

export const twill: Checker = {
  name: 'twill',
  label: 'Twill',
  help: 'A woven diagonal, which breaks where two borders of a seam do not match',
  shader: /* glsl */ `
  float along = x.x + x.y;
  float across = x.x - x.y;
  vec3 cloth = mix(CLOTH, PINE * 0.85, stripes(along));
  float thread = stripes(across * 2.0);
  return mix(cloth, cloth * mix(vec3(1.0), OCHRE, 0.6), thread * stripes(along + 0.25));`,
};
