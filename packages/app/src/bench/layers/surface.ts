import { Mesh } from 'three';
import { overlayShown } from '../overlays/index.ts';
import { rampOf, surfaceMaterial } from '../panes/surfaceMaterial.ts';
import type { Layer } from './layer.ts';

/** The surface of the model, or its shells in the flat, with checker and overlay. */
const surfaceIn = (pane: 'model' | 'board'): Layer => ({
  name: 'surface',
  pane,
  make({ geometry }) {
    const material = surfaceMaterial(pane === 'board');
    const object = new Mesh(geometry, material);
    object.frustumCulled = false;
    return {
      object,
      needs: (s) => [s.overlay, s.patches, s.checker, s.repeats],
      update(s) {
        const overlay = overlayShown(s);
        const { uniforms } = material;
        uniforms.uOverlay.value = overlay !== undefined;
        uniforms.uEverywhere.value = overlay?.everywhere === true;
        if (overlay) uniforms.uRamp.value = rampOf(overlay);
        uniforms.uChecker.value = s.checker;
        uniforms.uRepeats.value = s.repeats;
      },
      frame({ plain }) {
        material.uniforms.uMarked.value = !plain;
      },
      dispose: () => material.dispose(),
    };
  },
});

export const modelSurface = surfaceIn('model');
export const boardSurface = surfaceIn('board');
