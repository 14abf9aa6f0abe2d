import { type HemDocument, shellsOf, topologyOf } from '../document/document.ts';
import { averageAtCorners } from '../measure/averageAtCorners.ts';
import { type Histogram, histogram } from '../measure/histogram.ts';
import type { ShellStretch } from '../measure/stretch.ts';
import { facesOfShell } from '../surface/shells.ts';
import type { Job } from './job.ts';

export interface StretchPictureTask {
  readonly document: HemDocument;
  /** Of every shell, in order; undefined where it was not measured. */
  readonly stretch: readonly (Pick<ShellStretch, 'logArea' | 'angle'> | undefined)[];
}

/** Stretch of a whole model, as it is drawn. */
export interface StretchPicture {
  /** Of every triangle of the model, shell by shell; 0 where nothing was measured. See `ShellStretch`. */
  readonly logArea: Float32Array;
  readonly angle: Float32Array;
  /** The same of every triangle corner, averaged by area over the triangles of the shell that meet there. */
  readonly smoothLogArea: Float32Array;
  readonly smoothAngle: Float32Array;
  readonly areaHistogram: Histogram;
  readonly angleHistogram: Histogram;
}

/** What is drawn of the stretch of a model. */
export const stretchPicture: Job<'stretch-picture', StretchPictureTask, StretchPicture> = {
  name: 'stretch-picture',
  run({ document, stretch }) {
    const { triangulation, triangleStart, mesh } = topologyOf(document.model);
    const { triangleCorners } = triangulation;
    const shells = shellsOf(document);
    const count = triangulation.triangleFace.length;
    const logArea = new Float32Array(count);
    const angle = new Float32Array(count);
    stretch.forEach((own, shell) => {
      if (!own) return;
      let at = 0;
      for (const f of facesOfShell(shells, shell)) {
        for (let t = triangleStart[f]; t < triangleStart[f + 1]; t++, at++) {
          logArea[t] = own.logArea[at];
          angle[t] = own.angle[at];
        }
      }
    });
    const { cornerWedge, wedgeStart, shellCount } = shells;
    const smooth = averageAtCorners({ mesh, triangleCorners, cornerWedge, wedges: wedgeStart[shellCount] });
    const known = stretch.flatMap((own) => own ?? []);
    return {
      logArea,
      angle,
      smoothLogArea: smooth(logArea),
      smoothAngle: smooth(angle),
      areaHistogram: histogram(
        known.map((own) => own.logArea),
        { from: -1.5, to: 1.5 },
      ),
      angleHistogram: histogram(
        known.map((own) => own.angle),
        { from: 0, to: 60 },
      ),
    };
  },
};
