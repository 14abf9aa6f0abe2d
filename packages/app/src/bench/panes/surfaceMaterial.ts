import { Color, DataTexture, DoubleSide, GLSL3, LinearFilter, ShaderMaterial } from 'three';
import { COMMON } from '../checkers/checker.ts';
import { checkerShader } from '../checkers/index.ts';
import type { Overlay } from '../overlays/overlay.ts';

const vertexShader = /* glsl */ `
in vec2 flatUv;
in float place;
in float mark;
in float occlusion;
out vec2 vUv;
out float vPlace;
out vec3 vNormal;
out vec3 vWorld;
out float vOcclusion;
flat out float vMark;
uniform float uFlat;

void main() {
  vUv = flatUv;
  vPlace = place;
  vMark = mark;
  vNormal = normalMatrix * normal;
  vWorld = mat3(modelMatrix) * normal;
  vOcclusion = occlusion;
  gl_Position = projectionMatrix * modelViewMatrix * vec4(uFlat > 0.5 ? vec3(flatUv, 0.0) : position, 1.0);
  // A mark below zero is hidden; on the Board so is what has no UV.
  if (mark < -0.5 || (uFlat > 0.5 && flatUv.x < -1e5)) gl_Position = vec4(2.0, 2.0, 2.0, 1.0);
}`;

const fragmentShader = /* glsl */ `
in vec2 vUv;
in float vPlace;
in vec3 vNormal;
in vec3 vWorld;
in float vOcclusion;
flat in float vMark;
out vec4 colour;
uniform float uFlat;
uniform bool uOverlay;
uniform bool uEverywhere;
uniform int uChecker;
uniform float uStrength;
uniform bool uMarked;
uniform float uRepeats;
uniform sampler2D uRamp;
uniform vec3 uBase;
uniform vec3 uAccent;

${COMMON}
${checkerShader()}

void main() {
  bool unfolded = vUv.x > -1e5;
  vec3 base = uBase;
  float weave = 0.0;
  // Derivatives are taken where every pixel goes.
  vec2 squares = vUv * uRepeats;
  vec2 dx = dFdx(squares);
  vec2 dy = dFdy(squares);
  if (uChecker >= 0 && unfolded) {
    vec3 pattern = checker(uChecker, squares, dx, dy);
    base = mix(base, pattern, uStrength);
    weave = uStrength * (1.0 - dot(pattern, vec3(0.3, 0.59, 0.11)));
  }
  // A map of stretch keeps its colours: there only thin lines say what is selected.
  bool map = uOverlay && (unfolded || uEverywhere);
  if (map) {
    vec3 tone = texture(uRamp, vec2(clamp(vPlace, 0.002, 0.998), 0.5)).rgb;
    base = tone * (1.0 - 0.45 * weave);
  }
  // Hatches are drawn in the pixels of the screen: never by colour alone.
  float slant = fract((gl_FragCoord.x + gl_FragCoord.y) / 9.0);
  float counter = fract((gl_FragCoord.x - gl_FragCoord.y) / 7.0);
  float mark = uMarked ? vMark : 0.0;
  if (mark > 1.5) base = mix(base, uAccent, slant < (map ? 0.1 : 0.22) ? 0.85 : map ? 0.0 : 0.12);
  else if (mark > 0.5) base = mix(base, uAccent, slant < (map ? 0.07 : 0.16) ? 0.45 : map ? 0.0 : 0.05);
  if (uFlat > 0.5) {
    if (!gl_FrontFacing) base = mix(base, vec3(0.55, 0.12, 0.08), counter < 0.4 ? 0.85 : 0.25);
    colour = vec4(base, 1.0);
    return;
  }
  vec3 n = normalize(vNormal);
  vec3 up = normalize(vWorld);
  if (!gl_FrontFacing) { n = -n; up = -up; }
  // A soft sky from above and a little light back from the ground, both dimmed where the model hides the sky from itself; and a lamp
  // that goes with the viewer.
  float key = max(0.0, dot(n, normalize(vec3(-0.35, 0.65, 0.75))));
  vec3 ambient = mix(vec3(0.46, 0.43, 0.39), vec3(0.68, 0.70, 0.72), 0.5 + 0.5 * up.y);
  base *= ambient * vOcclusion * sqrt(vOcclusion) + 0.42 * key * (0.4 + 0.6 * vOcclusion);
  if (!gl_FrontFacing) base = mix(base * 0.55, vec3(0.2, 0.25, 0.24), counter < 0.3 ? 0.6 : 0.0);
  colour = vec4(base, 1.0);
}`;

/** The material of the surface in one pane; both panes share the geometry. */
export function surfaceMaterial(flat: boolean): ShaderMaterial {
  return new ShaderMaterial({
    glslVersion: GLSL3,
    vertexShader,
    fragmentShader,
    side: DoubleSide,
    polygonOffset: true,
    polygonOffsetFactor: 1.5,
    polygonOffsetUnits: 2,
    uniforms: {
      uFlat: { value: flat ? 1 : 0 },
      uOverlay: { value: false },
      uEverywhere: { value: false },
      uChecker: { value: 0 },
      uStrength: { value: 1 },
      uGlyphs: { value: null },
      uImage: { value: null },
      uImageAspect: { value: 1 },
      uMarked: { value: true },
      uRepeats: { value: 24 },
      uRamp: { value: null },
      uBase: { value: new Color(0.8, 0.76, 0.69) },
      uAccent: { value: new Color(0.76, 0.09, 0.42) },
    },
  });
}

const ramps = new Map<string, DataTexture>();

/** The colours of an overlay as a texture, made once. */
export function rampOf({ name, colour }: Overlay): DataTexture {
  const made = ramps.get(name);
  if (made) return made;
  const width = 256;
  const data = new Uint8Array(4 * width);
  for (let i = 0; i < width; i++) {
    const { r, g, b } = new Color(colour(i / (width - 1))).convertLinearToSRGB();
    data.set([255 * r, 255 * g, 255 * b, 255], 4 * i);
  }
  const texture = new DataTexture(data, width, 1);
  texture.minFilter = texture.magFilter = LinearFilter;
  texture.needsUpdate = true;
  ramps.set(name, texture);
  return texture;
}
