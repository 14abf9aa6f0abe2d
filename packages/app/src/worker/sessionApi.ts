import { buffersIn } from '@blunt-hem/core/jobs/buffersIn';
import type { Jobs } from '@blunt-hem/core/jobs/index';
import { gone } from '@blunt-hem/core/trials/trialBook';
import * as Comlink from 'comlink';
import { answer } from './answer.ts';
import type { openedProject } from './openedProject.ts';
import type { SessionApi } from './protocol.ts';
import { pngOf } from './rackController.ts';
import { trialPicture, trialRow } from './trialPicture.ts';

const FINDING_PICTURE = { width: 320, height: 208 };

/** Acts on the open project, its trials, and questions about it. */
export function sessionApi(project: ReturnType<typeof openedProject>, previewJobs: Jobs): SessionApi {
  const { session, afterEvents } = project;
  return {
    perform: (operation, params) => afterEvents(async () => session().perform(operation, params)),
    undo: () => afterEvents(async () => session().undo()),
    redo: () => afterEvents(async () => session().redo()),
    keepTrial: (name, which) => answer(async () => trialRow(await session().trials.keep(name, which))),
    nameTrial: (id, name) => answer(() => session().trials.name(id, name)),
    dropTrial: (id) => answer(() => session().trials.drop(id)),
    takeTrial: (id, faces) => afterEvents(async () => session().trials.take(id, faces)),
    tryMethods: (which) => answer(() => session().trials.tryMethods(which)),
    async trialPicture(id) {
      const result = await answer(() => {
        const { document, trials } = session();
        const trial = trials.get(id);
        if (!trial) throw gone();
        return trialPicture(document, trial, previewJobs);
      });
      return 'ok' in result ? Comlink.transfer(result, buffersIn(result.ok)) : result;
    },
    async stop() {
      project.controller?.session.stop();
    },
    async ask(name, params, report) {
      const result = await answer(() =>
        session().ask(name, params, ({ fraction }) => fraction !== undefined && report?.(fraction)),
      );
      return 'ok' in result ? Comlink.transfer(result, buffersIn(result.ok)) : result;
    },
    async stopAsking(name) {
      project.controller?.session.stopAsking(name);
    },
    preview: async (operation, params) => project.controller?.preview({ operation, params }),
    async clearPreview() {
      project.controller?.session.clearPreview();
    },
    async examine(tolerance, report) {
      if (!project.controller) return undefined;
      const { model } = project.controller.session.document;
      const found = await project.controller.session.ask(
        'examination',
        { tolerance },
        ({ fraction }) => fraction !== undefined && report(fraction),
      );
      return found && (await import('./openBench.ts')).healthReport(found, model);
    },
    async pictureOf(faces, edges) {
      if (faces.length + edges.length === 0) return undefined;
      const where = { faces: [...faces], edges: [...edges] };
      const pixels = await project.controller?.session.ask('picture', { ...FINDING_PICTURE, ...where });
      return pixels && pngOf(pixels, FINDING_PICTURE.width, FINDING_PICTURE.height);
    },
  };
}
