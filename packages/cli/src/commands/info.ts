import { basename } from 'node:path';
import { openDocument, shellOf, shellsOf, topologyOf } from '@blunt-hem/core/document/document';
import { vertexCount } from '@blunt-hem/core/mesh/mesh';
import { mainKind, partsBy } from '@blunt-hem/core/mesh/parts';
import { shellTopology } from '@blunt-hem/core/surface/shellTopology';
import { opened } from '../files.ts';

/** What a file holds. */
export async function run(input: string): Promise<object> {
  const model = await opened(input);
  const document = openDocument(model);
  const { connectivity, triangulation } = topologyOf(model);
  const topologies = Array.from({ length: shellsOf(document).shellCount }, (_, s) =>
    shellTopology(shellOf(document, s)),
  );
  return {
    file: basename(input),
    vertices: vertexCount(model.mesh),
    faces: model.mesh.faceStart.length - 1,
    triangles: triangulation.triangleFace.length,
    parts: partsBy(mainKind(model), model, connectivity).names,
    materials: model.materials.map(({ name }) => name),
    images: model.images.map(({ name }) => name),
    uvSets: model.uvSets.map(({ name }) => name),
    shells: topologies.length,
    borders: topologies.reduce((sum, { borderCount }) => sum + borderCount, 0),
    topologies: topologies.map(({ kind }) => kind),
  };
}
