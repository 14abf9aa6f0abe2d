import { topologyOf } from '@blunt-hem/core/document/document';
import type { CheckOptions, Finding } from '@blunt-hem/core/health/check';
import { examine } from '@blunt-hem/core/health/examine';
import { type ModelFigures, modelFigures } from '@blunt-hem/core/health/modelFigures';
import type { Model } from '@blunt-hem/core/mesh/model';
import type { Context } from '@blunt-hem/core/progress';
import * as Comlink from 'comlink';

/** Examines models apart from everything else: whoever has had enough ends the worker. */
export interface HealthApi {
  examine(
    model: Model,
    options: CheckOptions,
    report: (fraction: number) => void,
  ): { readonly findings: readonly (Finding & { readonly kind: string })[]; readonly figures: ModelFigures };
}

/** Reports closer together than this are left out, milliseconds. */
const QUIET = 100;

const api: HealthApi = {
  examine(model, options, report) {
    const { mesh, links, triangulation } = topologyOf(model);
    const patient = { model, mesh, links, triangulation };
    let last = 0;
    const context: Context = {
      signal: { aborted: false },
      report({ fraction = 0 }) {
        const now = performance.now();
        if (now - last < QUIET) return;
        last = now;
        report(fraction);
      },
    };
    const findings = examine(patient, context, options).map(({ check, finding }) => ({
      ...finding,
      kind: check.kind,
    }));
    return { findings, figures: modelFigures(patient) };
  },
};

Comlink.expose(api);
