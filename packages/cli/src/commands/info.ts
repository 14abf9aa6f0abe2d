import { basename } from 'node:path';
import { openDocument, shellOf, shellsOf, topologyOf } from '@blunt-hem/core/document/document';
import { vertexCount } from '@blunt-hem/core/mesh/mesh';
import { mainKind, partsBy } from '@blunt-hem/core/mesh/parts';
import { verdictOf } from '@blunt-hem/core/surface/verdict';
import { opened } from '../files.ts';

/** What a file holds. */
export async function run(input: string): Promise<object> {
  const model = await opened(input);
  const document = openDocument(model);
  const { links, triangulation } = topologyOf(model);
  const verdicts = Array.from({ length: shellsOf(document).shellCount }, (_, s) =>
    verdictOf(shellOf(document, s)),
  );
  return {
    file: basename(input),
    vertices: vertexCount(model.mesh),
    faces: model.mesh.faceStart.length - 1,
    triangles: triangulation.triangleFace.length,
    parts: partsBy(mainKind(model), model, links).names,
    materials: model.materials,
    uvSets: model.uvSets.map(({ name }) => name),
    shells: verdicts.length,
    borders: verdicts.reduce((sum, { borderCount }) => sum + borderCount, 0),
    verdicts: verdicts.map(({ kind }) => kind),
  };
}
