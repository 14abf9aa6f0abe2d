import { adoptTopology } from '@blunt-hem/core/document/document';
import type { Project } from '@blunt-hem/core/persistence/projectFile';
import type { Restored } from '../storage/rackBackup.ts';
import { answer } from './answer.ts';
import type { workerPool } from './pool.ts';
import type { ReadingApi } from './protocol.ts';
import type { rackController } from './rackController.ts';
import { readingController } from './readingController.ts';

/**
 * Reads files in a worker of their own, and makes projects of them.
 *
 * @param ready  opens the database, if it is not
 */
export function readingApi(
  rack: ReturnType<typeof rackController>,
  ready: () => Promise<unknown>,
  jobs: ReturnType<typeof workerPool>,
): ReadingApi {
  const reading = readingController();
  /** What was made of the file that was read last, and is not on the Rack yet. */
  let made: Project | undefined;
  return {
    read(files, report) {
      made = undefined;
      // What comes next is made ready meanwhile.
      jobs.start();
      void import('./openBench.ts');
      return reading.read(files, report);
    },
    async cancelReading() {
      reading.end();
    },
    async create(keepUvs, stance, anyway) {
      // Made once: where there turns out to be no room, it waits for the artist's word.
      if (!made) {
        const result = await reading.make(keepUvs, stance);
        if (!result || 'failure' in result) return result;
        made = result.ok.project;
        adoptTopology(result.ok.topology);
      }
      const project = made;
      const created = await answer(() => rack.add(project, anyway));
      if ('failure' in created && created.failure.code === 'no-room') return created;
      made = undefined;
      reading.end();
      return created;
    },
    async restore(file, report) {
      let told: Restored = { projects: 0, already: 0, losses: [] };
      const result = await reading.readBackup(
        file,
        async (project) => {
          await ready();
          told = await rack.restoreOne(project, told);
        },
        report,
      );
      if (!result || 'failure' in result) return result;
      return { ok: { ...told, losses: [...told.losses, ...result.ok] } };
    },
  };
}
