import { BufferGeometry, Color, GLSL3, LineSegments, ShaderMaterial, Uint32BufferAttribute } from 'three';
import { PALETTE } from '../../theme/palette.ts';
import { wireEnds } from '../panes/edgeLines.ts';
import type { Layer } from './layer.ts';

const vertexShader = /* glsl */ `
in vec2 flatUv;
uniform float uFlat;
void main() {
  gl_Position = projectionMatrix * modelViewMatrix * vec4(uFlat > 0.5 ? vec3(flatUv, 0.05) : position, 1.0);
  if (uFlat > 0.5 && flatUv.x < -1e5) gl_Position = vec4(2.0, 2.0, 2.0, 1.0);
}`;

const fragmentShader = /* glsl */ `
out vec4 colour;
uniform vec3 uColour;
uniform float uOpacity;
void main() {
  colour = vec4(uColour, uOpacity);
}`;

/** Edges shorter than this on screen, pixels, are not drawn, and from the other on as plain as they get. */
const [HIDDEN, PLAIN] = [2.5, 7];

/** Mean length of some of the edges, as they are drawn. */
function meanEdge({ index, attributes }: BufferGeometry, pane: 'model' | 'board'): number {
  const places = pane === 'model' ? attributes.position : attributes.flatUv;
  if (!index || !places) return 0;
  const stride = 2 * Math.max(1, Math.floor(index.count / 1000));
  const [ends, at, size] = [index.array, places.array, pane === 'model' ? 3 : 2];
  let [sum, count] = [0, 0];
  for (let i = 0; i + 1 < ends.length; i += stride) {
    let square = 0;
    for (let k = 0; k < size; k++) square += (at[size * ends[i] + k] - at[size * ends[i + 1] + k]) ** 2;
    sum += Math.sqrt(square);
    count++;
  }
  return count > 0 ? sum / count : 0;
}

/** Edges of faces, as hairlines between the vertices of the surface itself: they move with it, and are stored once. */
const wiresIn = (pane: 'model' | 'board', opacity: number): Layer => ({
  name: 'wires',
  pane,
  make({ geometry: surface }) {
    const material = new ShaderMaterial({
      glslVersion: GLSL3,
      vertexShader,
      fragmentShader,
      transparent: true,
      uniforms: {
        uFlat: { value: pane === 'board' ? 1 : 0 },
        uColour: { value: new Color(PALETTE.ink) },
        uOpacity: { value: opacity },
      },
    });
    const geometry = new BufferGeometry();
    const object = new LineSegments(geometry, material);
    object.frustumCulled = false;
    object.onBeforeRender = () => undefined;
    let drawn: readonly unknown[] = [];
    return {
      object,
      needs: (s) => [s.model, s.hidden, s.dark],
      update({ model, hidden, dark }) {
        material.uniforms.uColour.value.set(dark ? PALETTE.night : PALETTE.ink);
        if (!model || (model === drawn[0] && hidden === drawn[1])) return;
        drawn = [model, hidden];
        geometry.setIndex(new Uint32BufferAttribute(wireEnds(model, hidden), 1));
      },
      frame({ perPixel }) {
        // The attributes are those of the surface, pictures and all.
        geometry.attributes = surface.attributes;
        const pixels = meanEdge(geometry, pane) / perPixel;
        const seen = Math.max(0, Math.min(1, (pixels - HIDDEN) / (PLAIN - HIDDEN)));
        material.uniforms.uOpacity.value = opacity * seen;
        object.visible = seen > 0;
      },
      dispose() {
        geometry.attributes = {};
        geometry.dispose();
        material.dispose();
      },
    };
  },
});

export const modelWires = wiresIn('model', 0.2);
export const boardWires = wiresIn('board', 0.18);
