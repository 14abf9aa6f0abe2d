import type { Mesh } from '@blunt-hem/core/mesh/mesh';
import type { Session } from '@blunt-hem/core/session/session';
import { occlusionBuffers } from './buffers.ts';
import type { BenchEvent } from './protocol.ts';

/** How the sky falls on the model is looked at once the hands have rested for so long, milliseconds. */
const LONG_REST = 1200;

/** Looks how the sky falls on the model: once the hands rest, and again for another mesh or another way up; any act ends it. */
export function occlusionWatch(session: Session, emit: (event: BenchEvent) => void) {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let lookedAt: { readonly mesh: Mesh; readonly upAxis: number } | undefined;

  const look = async (): Promise<void> => {
    const { model, upAxis } = session.document;
    if (lookedAt?.mesh === model.mesh && lookedAt.upAxis === upAxis) return;
    lookedAt = { mesh: model.mesh, upAxis };
    const found = await session.ask('ambient-occlusion', {}).catch(() => undefined);
    if (found && session.document.model.mesh === model.mesh)
      emit({ kind: 'occlusion', ...occlusionBuffers(model, found) });
    else if (!found) lookedAt = undefined;
  };

  return {
    /** The hands rest from now on. */
    rest(): void {
      clearTimeout(timer);
      timer = setTimeout(() => void look(), LONG_REST);
    },
    end: (): void => clearTimeout(timer),
  };
}
