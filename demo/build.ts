import { copyFileSync, existsSync, mkdirSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { openDocument, topologyOf } from '@blunt-hem/core/document/document';
import { emptyHistory } from '@blunt-hem/core/document/history';
import { readModel } from '@blunt-hem/core/formats/readModel';
import { localJobs } from '@blunt-hem/core/jobs/index';
import { findEdge } from '@blunt-hem/core/mesh/connectivity';
import { writeProject } from '@blunt-hem/core/persistence/projectFile';
import { memoryPersistence } from '@blunt-hem/core/session/persistence';
import { openSession } from '@blunt-hem/core/session/session';
import { gourdLantern } from './gourdLantern.ts';
import { heronHood } from './heronHood.ts';
import { mooringPost } from './mooringPost.ts';
import { mudSnail } from './mudSnail.ts';
import { objOfMesh, objOfParts } from './objText.ts';
import { puntThwart, reedPunt } from './reedPunt.ts';
import { toadFerryman } from './toadFerryman.ts';

/** Writes the demo models, and the projects that a first visit finds on the Rack, where the app serves them from. */
const folder = new URL('../packages/app/public/demo/', import.meta.url);
mkdirSync(folder, { recursive: true });
const dense = 'mud-snail';
for (const file of readdirSync(folder))
  if (!file.startsWith(dense)) rmSync(new URL(file, folder), { recursive: true });

const toad = toadFerryman();
await project('toad-ferryman.obj', objOfMesh('Toad ferryman', 'Skin', toad.mesh), toad.seams);
await project('heron-hood.obj', objOfMesh('Heron hood', 'Felt', heronHood().mesh));
await project('gourd-lantern.obj', objOfParts(gourdLantern()));
await project('reed-punt.glb', await reedPunt());
await project('mooring-post.obj', objOfParts(mooringPost()));
await project('punt-thwart.obj', puntThwart());
// It takes its time: made anew only when it would be another.
if (!isNewer(`${dense}.hemproject`, 'mudSnail.ts', 'build.ts')) {
  await project(`${dense}.obj`, objOfMesh('Mud snail', 'Slime', mudSnail()));
  rmSync(new URL(`${dense}.obj`, folder));
}

/** Whether a file of the demo is there, and no source of it was changed since. */
function isNewer(file: string, ...sources: readonly string[]): boolean {
  const changed = (url: URL) => (existsSync(url) ? statSync(url).mtimeMs : 0);
  return sources.every(
    (source) => changed(new URL(source, import.meta.url)) < changed(new URL(file, folder)),
  );
}

/** A model as it comes, and as a project: cut and unfolded as far as its seams go. */
async function project(
  file: string,
  content: string | Uint8Array,
  seams: readonly (readonly [number, number])[] = [],
): Promise<void> {
  const bytes = typeof content === 'string' ? new TextEncoder().encode(content) : content;
  writeFileSync(new URL(file, folder), bytes);
  const name = file.replace(/\.\w+$/, '');
  const title = name[0].toUpperCase() + name.slice(1).replaceAll('-', ' ');
  const document = openDocument(await readModel(bytes, file));
  const session = openSession({
    document,
    history: emptyHistory,
    persistence: memoryPersistence(),
    jobs: localJobs,
  });
  const { connectivity } = topologyOf(document.model);
  const edges = seams.map(([a, b]) => findEdge(connectivity, a, b));
  if (edges.length > 0) await session.perform('cut', { edges });
  const made = { name: title, document: session.document, history: emptyHistory };
  writeFileSync(new URL(`${name}.hemproject`, folder), await writeProject(made));
  // Taken from the Bench, by `npm run screenshots`.
  copyFileSync(new URL(`pictures/${name}.webp`, import.meta.url), new URL(`${name}.webp`, folder));
}
