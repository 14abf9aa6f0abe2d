import { basename } from 'node:path';
import { UP_AXES } from '@blunt-hem/core/document/fields';
import type { ParamsOf } from '@blunt-hem/core/operations/catalogue';
import { sessionOver } from '../asking.ts';
import { carried } from '../carried.ts';
import { readFaces } from '../faceFile.ts';
import { fileText } from '../files.ts';

export interface ProjectOptions
  extends Pick<ParamsOf<'project'>, 'kind' | 'sweep' | 'each' | 'toward' | 'origin'> {
  readonly out: string;
  readonly faces?: string;
  /** What points up, or the axis of a wrap. */
  readonly axis?: readonly [number, number, number];
  readonly up: (typeof UP_AXES)[number];
}

/** Projects the faces of a file, all or some, and writes the model. */
export async function run(input: string, options: ProjectOptions): Promise<object> {
  const { out, faces: list, axis, up, ...asked } = options;
  const session = await sessionOver(input, { upAxis: UP_AXES.indexOf(up) });
  const faces =
    list === undefined ? [...session.document.stale.keys()] : readFaces(await fileText(list), basename(list));
  // A plane looks along its axis; a wrap goes round it.
  const way = asked.kind === 'plane' ? { toward: asked.toward ?? axis } : { up: axis };
  return carried(session, input, out, 'project', { ...asked, ...way, faces });
}
