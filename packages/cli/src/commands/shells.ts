import { basename } from 'node:path';
import { shellOf, shellsOf, topologyOf } from '@blunt-hem/core/document/document';
import { readSeams } from '@blunt-hem/core/formats/seamFile';
import { surfaceArea } from '@blunt-hem/core/surface/areas';
import { facesOfShell } from '@blunt-hem/core/surface/shells';
import { shellTopology } from '@blunt-hem/core/surface/shellTopology';
import { sessionOver } from '../asking.ts';
import { fileText } from '../files.ts';

/** The shells that seams make of a model, and whether each can lie flat. */
export async function run(input: string, { seams: file }: { readonly seams: string }): Promise<object> {
  const { document: bare } = await sessionOver(input, { keepUvs: false });
  const { connectivity } = topologyOf(bare.model);
  const seams = bare.seams.slice();
  for (const e of readSeams(await fileText(file), basename(file), connectivity)) seams[e] = 1;
  const document = { ...bare, seams };
  const shells = shellsOf(document);
  return {
    file: basename(input),
    shells: Array.from({ length: shells.shellCount }, (_, s) => {
      const shell = shellOf(document, s);
      const { kind, canUnfold, borderCount, genus, sentence } = shellTopology(shell);
      const faces = facesOfShell(shells, s);
      const area = surfaceArea(shell.positions, shell.triangles);
      return {
        firstFace: faces[0],
        faces: faces.length,
        area,
        kind,
        canUnfold,
        borders: borderCount,
        genus,
        sentence,
      };
    }),
  };
}
