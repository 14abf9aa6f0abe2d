import { shellsOf } from '../../document/document.ts';
import { weightOfFaces } from '../../document/patchWeights.ts';
import { shellsLabel } from '../../document/shellChoice.ts';
import { densities, usualDensity } from '../../inspect/densities.ts';
import { about, optional, positive, record, whichShells } from '../../params.ts';
import { surfaceArea } from '../../surface/areas.ts';
import { signedArea } from '../../surface/flatArea.ts';
import { facesOfShell } from '../../surface/shells.ts';
import { transformUv } from '../../surface/similarity.ts';
import { texelsAt } from '../../surface/tiles.ts';
import { boxOf } from '../../surface/uvBox.ts';
import { operation } from '../operation.ts';
import { clearlyChanged } from './changedShells.ts';

/** Scales shells about their middles to one texture scale. */
export const evenDensity = operation({
  name: 'even-density',
  stage: 'arrange',
  params: record({
    shells: whichShells,
    density: about(
      'texture scale that all come to; what most of the surface has when absent',
      optional(positive()),
      'texels a unit',
    ),
  }),
  label: ({ shells, density }, document) =>
    `Scale ${shellsLabel(document, shells)} to ${density ? 'a chosen density' : 'the density of the rest'}`,
  doing: 'Scaling',
  run(document, { shells, density }) {
    const known = shellsOf(document);
    const wanted = density ?? usualDensity(densities(document));
    return clearlyChanged(document, shells, (shell, uv) => {
      const area = surfaceArea(shell.positions, shell.triangles);
      const flat = Math.abs(signedArea(shell.triangles, uv));
      const box = boxOf(uv);
      const scale =
        flat > 0 && wanted
          ? ((wanted * weightOfFaces(document, facesOfShell(known, known.faceShell[shell.triangleFace[0]]))) /
              texelsAt(document.tiles, box)) *
            Math.sqrt(area / flat)
          : 1;
      const [minU, minV, maxU, maxV] = box;
      const [u, v] = [(minU + maxU) / 2, (minV + maxV) / 2];
      return transformUv(uv, [scale, 0, 0, scale, u - scale * u, v - scale * v]);
    });
  },
});
