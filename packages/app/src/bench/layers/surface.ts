import { Mesh, type ShaderMaterial } from 'three';
import { type BenchStore, useBench } from '../../store/bench.ts';
import { squaresAcross } from '../../store/checker.ts';
import { glyphTexture } from '../checkers/glyphs.ts';
import { imageTexture } from '../checkers/imageTexture.ts';
import { checkerIndex } from '../checkers/index.ts';
import { overlayShown } from '../overlays/index.ts';
import { rampOf, surfaceMaterial } from '../panes/surfaceMaterial.ts';
import type { Layer } from './layer.ts';

/** The surface of the model, or its shells in the flat, with checker and overlay. */
const surfaceIn = (pane: 'model' | 'board'): Layer => ({
  name: 'surface',
  pane,
  make({ geometry }) {
    const material = surfaceMaterial(pane === 'board');
    const glyphs = glyphTexture(() => useBench.setState({}));
    const object = new Mesh(geometry, material);
    object.frustumCulled = false;
    return {
      object,
      needs: (s) => [
        s.overlay,
        s.patches,
        s.checker,
        s.checkerKind,
        s.checkerStrength,
        s.ownImage,
        squaresAcross(s),
        glyphs.version,
      ],
      update(s) {
        const overlay = overlayShown(s);
        const { uniforms } = material;
        uniforms.uOverlay.value = overlay !== undefined;
        uniforms.uEverywhere.value = overlay?.everywhere === true;
        if (overlay) uniforms.uRamp.value = rampOf(overlay);
        dressSurface(material, s, glyphs);
      },
      frame({ plain }) {
        material.uniforms.uMarked.value = !plain;
      },
      dispose() {
        material.dispose();
        glyphs.dispose();
      },
    };
  },
});

/** The checker that is chosen. */
export function dressSurface(
  { uniforms }: ShaderMaterial,
  s: BenchStore,
  glyphs: ReturnType<typeof glyphTexture>,
): void {
  // Without an image of one's own the first checker stands for it.
  const kind = s.checkerKind === 'image' && !s.ownImage ? 0 : checkerIndex(s.checkerKind);
  uniforms.uChecker.value = s.checker ? kind : -1;
  uniforms.uStrength.value = s.checkerStrength;
  uniforms.uRepeats.value = squaresAcross(s);
  uniforms.uGlyphs.value = glyphs;
  if (!s.ownImage) return;
  uniforms.uImage.value = imageTexture(s.ownImage.bitmap);
  uniforms.uImageAspect.value = s.ownImage.bitmap.width / s.ownImage.bitmap.height;
}

export const modelSurface = surfaceIn('model');
export const boardSurface = surfaceIn('board');
