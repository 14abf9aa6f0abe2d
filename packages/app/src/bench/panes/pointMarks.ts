import { BufferAttribute, BufferGeometry, Points, PointsMaterial } from 'three';

export interface PointLook {
  readonly colour: string;
  /** Pixels across. */
  readonly size: number;
  /** A round head with a rim, or an open ring, not a square. */
  readonly shape?: 'head' | 'ring';
  readonly order: number;
}

const SHAPES = {
  head: 'if (away > 0.72) diffuseColor.rgb = vec3(1.0, 0.99, 0.97);',
  ring: 'if (away < 0.6) discard; if (away > 0.86 || away < 0.72) diffuseColor.rgb = vec3(1.0, 0.99, 0.97);',
} as const;

/** Marks of one size on the screen, whatever lies before them. */
export function pointMarks({ colour, size, shape, order }: PointLook) {
  const geometry = new BufferGeometry();
  const material = new PointsMaterial({ color: colour, size, sizeAttenuation: false, depthTest: false });
  if (shape) {
    material.transparent = true;
    material.onBeforeCompile = (shader) => {
      shader.fragmentShader = shader.fragmentShader.replace(
        '#include <color_fragment>',
        `#include <color_fragment>
        float away = 2.0 * length(gl_PointCoord - 0.5);
        if (away > 1.0) discard;
        ${SHAPES[shape]}`,
      );
    };
  }
  const object = new Points(geometry, material);
  object.frustumCulled = false;
  object.renderOrder = order;
  object.visible = false;
  return {
    object,
    /** @param places  xyz of each */
    set(places: Float32Array) {
      object.visible = places.length > 0;
      geometry.setAttribute('position', new BufferAttribute(places, 3));
    },
    dispose() {
      geometry.dispose();
      material.dispose();
    },
  };
}
