import { interpolateCividis, interpolatePuOr } from 'd3-scale-chromatic';
import { Color, DataTexture, DoubleSide, GLSL3, LinearFilter, ShaderMaterial } from 'three';

/** Natural logarithm of the area ratio at either end of the stretch map: half and double. */
export const AREA_REACH = Math.log(2);
/** Degrees at the upper end of the angle map. */
export const ANGLE_REACH = 45;

/** Compressed texture purple, stretched texture brown-orange. `t` from 0, compressed, to 1. */
export const areaColour = (t: number): string => interpolatePuOr(t);
export const angleColour = (t: number): string => interpolateCividis(t);

function ramp(colour: (t: number) => string): DataTexture {
  const width = 256;
  const data = new Uint8Array(4 * width);
  for (let i = 0; i < width; i++) {
    const { r, g, b } = new Color(colour(i / (width - 1))).convertLinearToSRGB();
    data.set([255 * r, 255 * g, 255 * b, 255], 4 * i);
  }
  const texture = new DataTexture(data, width, 1);
  texture.minFilter = texture.magFilter = LinearFilter;
  texture.needsUpdate = true;
  return texture;
}

const ramps = { area: ramp(areaColour), angle: ramp(angleColour) };

const vertexShader = /* glsl */ `
in vec2 flatUv;
in vec2 stretch;
in float mark;
out vec2 vUv;
out vec2 vStretch;
out vec3 vNormal;
out vec3 vEye;
flat out float vMark;
uniform float uFlat;

void main() {
  vUv = flatUv;
  vStretch = stretch;
  vMark = mark;
  vNormal = normalMatrix * normal;
  vec4 eye = modelViewMatrix * vec4(uFlat > 0.5 ? vec3(flatUv, 0.0) : position, 1.0);
  vEye = eye.xyz;
  gl_Position = projectionMatrix * eye;
  // A mark below zero is hidden; on the Board so is what has no UV.
  if (mark < -0.5 || (uFlat > 0.5 && flatUv.x < -1e5)) gl_Position = vec4(2.0, 2.0, 2.0, 1.0);
}`;

const fragmentShader = /* glsl */ `
in vec2 vUv;
in vec2 vStretch;
in vec3 vNormal;
in vec3 vEye;
flat in float vMark;
out vec4 colour;
uniform float uFlat;
uniform int uOverlay;
uniform bool uChecker;
uniform float uRepeats;
uniform float uAreaReach;
uniform float uAngleReach;
uniform sampler2D uAreaRamp;
uniform sampler2D uAngleRamp;
uniform vec3 uBase;
uniform vec3 uAccent;

/** A wave of stripes, half on and half off, smoothed over what one pixel covers. */
float stripes(float x) {
  float width = fwidth(x);
  float wave = clamp((abs(fract(x) - 0.5) - 0.25) / max(width, 1e-5) + 0.5, 0.0, 1.0);
  return mix(wave, 0.5, clamp(width - 0.4, 0.0, 1.0));
}

void main() {
  bool unfolded = vUv.x > -1e5;
  vec3 base = uBase;
  float weave = 0.0;
  if (uChecker && unfolded) {
    float warp = stripes(vUv.x * uRepeats);
    float weft = stripes(vUv.y * uRepeats);
    vec3 cloth = vec3(0.97, 0.95, 0.90);
    cloth *= mix(vec3(1.0), vec3(0.42, 0.66, 0.62), warp);
    cloth *= mix(vec3(1.0), vec3(0.88, 0.70, 0.50), weft);
    base = cloth;
    weave = 0.5 * (warp + weft);
  }
  if (uOverlay > 0 && unfolded) {
    float t = uOverlay == 1 ? 0.5 - 0.5 * vStretch.x / uAreaReach : vStretch.y / uAngleReach;
    vec3 tone = uOverlay == 1 ? texture(uAreaRamp, vec2(clamp(t, 0.002, 0.998), 0.5)).rgb
                              : texture(uAngleRamp, vec2(clamp(t, 0.002, 0.998), 0.5)).rgb;
    base = tone * (uChecker ? 1.0 - 0.22 * weave : 1.0);
  }
  // Hatches are drawn in the pixels of the screen: never by colour alone.
  float slant = fract((gl_FragCoord.x + gl_FragCoord.y) / 9.0);
  float counter = fract((gl_FragCoord.x - gl_FragCoord.y) / 7.0);
  if (vMark > 1.5) base = mix(base, uAccent, slant < 0.22 ? 0.85 : 0.12);
  else if (vMark > 0.5) base = mix(base, uAccent, slant < 0.16 ? 0.45 : 0.05);
  if (uFlat > 0.5) {
    if (!gl_FrontFacing) base = mix(base, vec3(0.55, 0.12, 0.08), counter < 0.4 ? 0.85 : 0.25);
    colour = vec4(base, 1.0);
    return;
  }
  vec3 n = normalize(vNormal);
  if (!gl_FrontFacing) n = -n;
  float key = max(0.0, dot(n, normalize(vec3(-0.35, 0.65, 0.75))));
  float fill = max(0.0, dot(n, normalize(vec3(0.8, -0.1, 0.4))));
  float light = 0.46 + 0.52 * key + 0.12 * fill;
  base *= light;
  if (!gl_FrontFacing) base = mix(base * 0.55, vec3(0.2, 0.25, 0.24), counter < 0.3 ? 0.6 : 0.0);
  colour = vec4(base, 1.0);
}`;

/** The material of one pane; both panes share the geometry. */
export function paneMaterial(flat: boolean): ShaderMaterial {
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
      uOverlay: { value: 0 },
      uChecker: { value: true },
      uRepeats: { value: 24 },
      uAreaReach: { value: AREA_REACH },
      uAngleReach: { value: ANGLE_REACH },
      uAreaRamp: { value: ramps.area },
      uAngleRamp: { value: ramps.angle },
      uBase: { value: new Color(0.8, 0.76, 0.69) },
      uAccent: { value: new Color(0.76, 0.09, 0.42) },
    },
  });
}
