import * as Comlink from 'comlink';
import { useEffect, useState } from 'react';
import type { RackRow } from '../storage/rack.ts';
import { useBench } from '../store/bench.ts';
import { bench } from '../store/worker.ts';

export interface Projects {
  readonly here: readonly RackRow[];
  /** Taken off and not yet gone for good, the last first. */
  readonly off: readonly RackRow[];
}

/** Every project, the newest first; kept up to date by the database itself, from whatever tab it is written. */
export function useProjects(fail: (sentence: string) => void): Projects | undefined {
  const [projects, setProjects] = useState<Projects>();
  const restarts = useBench((s) => s.worker.restarts);
  // biome-ignore lint/correctness/useExhaustiveDependencies: watched from when the Rack is opened on, and anew by a worker that was started again
  useEffect(() => {
    let current = true;
    const take = (rows: readonly RackRow[]) => {
      if (!current) return;
      const off = rows.filter(({ deleted }) => deleted !== undefined);
      setProjects({
        here: rows.filter(({ deleted }) => deleted === undefined),
        off: off.sort((a, b) => (b.deleted as number) - (a.deleted as number)),
      });
    };
    const failed = (sentence: string) => current && fail(sentence);
    bench
      .watchRack(Comlink.proxy(take), Comlink.proxy(failed))
      .catch((error: Error) => failed(error.message));
    return () => {
      current = false;
      bench.leaveRack().catch(() => undefined);
    };
  }, [restarts]);
  return projects;
}
