import type { Checker } from './checker.ts';

export const gingham: Checker = {
  name: 'gingham',
  label: 'Gingham',
  help: 'Warp and weft are tinted differently, so that direction shows',
  shader: /* glsl */ `
  vec3 cloth = CLOTH;
  cloth *= mix(vec3(1.0), PINE, stripes(x.x));
  cloth *= mix(vec3(1.0), OCHRE, stripes(x.y));
  return cloth;`,
};
