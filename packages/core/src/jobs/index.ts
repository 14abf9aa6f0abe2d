import type { Context } from '../progress.ts';
import { ambientOcclusion } from './ambientOcclusion.ts';
import { bake } from './bake.ts';
import { bakeSurface } from './bakeSurface.ts';
import { bestCut } from './bestCut.ts';
import { brushShell } from './brushShell.ts';
import { copies } from './copies.ts';
import { countFinding } from './countFinding.ts';
import { coverage } from './coverage.ts';
import { darts } from './darts.ts';
import { drawPicture } from './drawPicture.ts';
import { examineModel } from './examineModel.ts';
import { inSight } from './inSight.ts';
import { inspectLayout } from './inspectLayout.ts';
import type { Job } from './job.ts';
import { layBorder } from './layBorder.ts';
import { layStrip } from './layStrip.ts';
import { limbRings } from './limbRings.ts';
import { measureShells } from './measureShells.ts';
import { meetsBound } from './meetsBound.ts';
import { openPieces } from './openPieces.ts';
import { packBetter } from './packBetter.ts';
import { packFirst } from './packFirst.ts';
import { packFrom } from './packFrom.ts';
import { packInto } from './packInto.ts';
import { packSome } from './packSome.ts';
import { predict } from './predict.ts';
import { proposeSeams } from './proposeSeams.ts';
import { rayTree } from './rayTree.ts';
import { relaxShells } from './relaxShells.ts';
import { removeFaces } from './removeFaces.ts';
import { repairModel } from './repairModel.ts';
import { shellFigures } from './shellFigures.ts';
import { straightStrips } from './straightStrips.ts';
import { stretchPicture } from './stretchPicture.ts';
import { symmetry } from './symmetry.ts';
import { unfoldFolds } from './unfoldFolds.ts';
import { unfoldShells } from './unfoldShells.ts';
import { visibility } from './visibility.ts';
import { warmUp } from './warmUp.ts';
import { wastefulShells } from './wastefulShells.ts';
import { writeFile } from './writeFile.ts';
import { writeMap } from './writeMap.ts';
import { writeProjectFile } from './writeProjectFile.ts';

/** Every job. */
export const JOBS = [
  unfoldShells,
  relaxShells,
  layStrip,
  straightStrips,
  layBorder,
  unfoldFolds,
  brushShell,
  packFirst,
  packFrom,
  packBetter,
  packSome,
  packInto,
  openPieces,
  bestCut,
  copies,
  darts,
  proposeSeams,
  predict,
  limbRings,
  symmetry,
  visibility,
  measureShells,
  shellFigures,
  stretchPicture,
  meetsBound,
  inspectLayout,
  coverage,
  examineModel,
  countFinding,
  repairModel,
  removeFaces,
  rayTree,
  inSight,
  writeFile,
  writeProjectFile,
  bakeSurface,
  bake,
  writeMap,
  drawPicture,
  ambientOcclusion,
  wastefulShells,
  warmUp,
] as const;

type AnyJob = (typeof JOBS)[number];
export type JobName = AnyJob['name'];
type Named<N extends JobName> = Extract<AnyJob, { readonly name: N }>;
export type JobInput<N extends JobName> = Parameters<Named<N>['run']>[0];
export type JobOutput<N extends JobName> = Awaited<ReturnType<Named<N>['run']>>;

/** Where jobs run. */
export interface Jobs {
  /** How many run at a time. */
  readonly width: number;
  run<N extends JobName>(name: N, input: JobInput<N>, context: Context): Promise<JobOutput<N>>;
}

/** Carries out one job here and now. */
export async function runJob<N extends JobName>(
  name: N,
  input: JobInput<N>,
  context: Context,
): Promise<JobOutput<N>> {
  const job = JOBS.find((each) => each.name === name) as Job<N, JobInput<N>, JobOutput<N>> | undefined;
  if (!job) throw new Error(`There is no job “${name}”.`);
  return job.run(input, context);
}

/** One after the other, on this thread. */
export const localJobs: Jobs = { width: 1, run: runJob };
