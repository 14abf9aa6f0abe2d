import { type HemDocument, shellOf, shellsOf, topologyOf } from '@blunt-hem/core/document/document';
import type { Jobs } from '@blunt-hem/core/jobs/index';
import { sumStretch } from '@blunt-hem/core/measure/sumStretch';
import { unattended } from '@blunt-hem/core/progress';
import { facesOfShell } from '@blunt-hem/core/surface/shells';
import { placesOf, type Trial } from '@blunt-hem/core/trials/trial';
import { NO_UV, type TrialPicture, type TrialRow } from './protocol.ts';

export function trialRow({ id, name, kept, made, set, seconds, shells, figures }: Trial): TrialRow {
  const methods = new Set(shells.map(({ method }) => method));
  const [method] = methods;
  return {
    id,
    name,
    kept,
    made,
    set,
    seconds,
    shells: shells.length,
    method: methods.size === 1 ? method : undefined,
    relaxed: shells.some(({ relaxed }) => relaxed),
    figures: sumStretch(figures),
  };
}

/** How the shells of a trial lie that are still there. */
export async function trialPicture(document: HemDocument, trial: Trial, jobs: Jobs): Promise<TrialPicture> {
  const { triangulation, triangleStart } = topologyOf(document.model);
  const { triangleCorners, triangleFace } = triangulation;
  const { cornerWedge, wedgeStart } = shellsOf(document);
  const uv = new Float32Array(2 * triangleCorners.length).fill(NO_UV);
  const logArea = new Float32Array(triangleFace.length);
  const angle = new Float32Array(triangleFace.length);
  const found = placesOf(document, trial);
  const tasks = found.map((each) => ({ shell: shellOf(document, each.s), uv: each.uv }));
  const measured = await jobs.run('measure', tasks, unattended);
  found.forEach(({ s, uv: own }, i) => {
    const { stretch } = measured[i];
    let at = 0;
    for (const f of facesOfShell(shellsOf(document), s)) {
      for (let t = triangleStart[f]; t < triangleStart[f + 1]; t++, at++) {
        logArea[t] = stretch?.logArea[at] ?? 0;
        angle[t] = stretch?.angle[at] ?? 0;
        for (let k = 3 * t; k < 3 * t + 3; k++) {
          const v = cornerWedge[triangleCorners[k]] - wedgeStart[s];
          uv[2 * k] = own[2 * v];
          uv[2 * k + 1] = own[2 * v + 1];
        }
      }
    }
  });
  return { uv, logArea, angle, gone: trial.shells.length - found.length };
}
