import { DataTexture, GLSL3, LinearFilter, Mesh, PlaneGeometry, RedFormat, ShaderMaterial } from 'three';
import type { Layer } from './layer.ts';

const vertexShader = /* glsl */ `
out vec2 vPlace;
void main() {
  vPlace = uv;
  gl_Position = projectionMatrix * modelViewMatrix * vec4(position, 1.0);
}`;

const fragmentShader = /* glsl */ `
in vec2 vPlace;
out vec4 colour;
uniform sampler2D uOcclusion;
void main() {
  float hidden = 1.0 - texture(uOcclusion, vPlace).r;
  // Nothing is left of it at the edge of what was worked out.
  float edge = smoothstep(0.5, 0.36, length(vPlace - 0.5));
  colour = vec4(0.13, 0.12, 0.1, 0.6 * edge * hidden);
}`;

/** The shadow of the sky on the ground under the model, so that it stands somewhere. Seen from below there is none. */
export const groundShadow: Layer = {
  name: 'ground shadow',
  pane: 'model',
  make() {
    const material = new ShaderMaterial({
      glslVersion: GLSL3,
      vertexShader,
      fragmentShader,
      transparent: true,
      depthWrite: false,
      uniforms: { uOcclusion: { value: null } },
    });
    const object = new Mesh(new PlaneGeometry(1, 1), material);
    object.visible = false;
    return {
      object,
      needs: (s) => [s.occlusion, s.upAxis, s.hidden],
      update({ occlusion, upAxis, hidden }) {
        // The shadow of what is hidden would say that something is there.
        object.visible = occlusion !== undefined && !hidden.includes(1);
        if (!occlusion || !object.visible) return;
        material.uniforms.uOcclusion.value?.dispose();
        material.uniforms.uOcclusion.value = textureOf(occlusion.ground);
        object.position.fromArray(occlusion.middle);
        object.scale.set(occlusion.side, occlusion.side, 1);
        // The plane faces z and has its v along y: as it should be where z is up.
        object.rotation.x = upAxis === 1 ? 0 : -Math.PI / 2;
      },
      dispose() {
        material.uniforms.uOcclusion.value?.dispose();
        object.geometry.dispose();
        material.dispose();
      },
    };
  },
};

function textureOf(ground: Uint8Array): DataTexture {
  const side = Math.sqrt(ground.length);
  const texture = new DataTexture(ground, side, side, RedFormat);
  texture.magFilter = texture.minFilter = LinearFilter;
  texture.unpackAlignment = 1;
  texture.needsUpdate = true;
  return texture;
}
