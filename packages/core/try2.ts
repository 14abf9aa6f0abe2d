import { heronHood } from '../../demo/heronHood.ts';
import { toadFerryman } from '../../demo/toadFerryman.ts';
import { openDocument } from './src/document/document.ts';
import { localJobs } from './src/jobs/index.ts';
import { modelFromMesh } from './src/mesh/model.ts';
import { unattended } from './src/progress.ts';
import { answerQuestion } from './src/questions/index.ts';
import { meshOfShell } from './src/surface/cutShell.ts';
import { glove, head, tentacle } from './src/testing/sculpts.ts';

const ctx = { ...unattended, jobs: localJobs };
for (const [name, mesh] of (
  [
    ['toad', toadFerryman().mesh],
    ['head', meshOfShell(head(60))],
    ['glove', meshOfShell(glove(110))],
    ['tentacle', meshOfShell(tentacle(90))],
    ['heron', heronHood().mesh],
  ] as const
).filter(([n]) => !process.env.N || process.env.N.split(',').includes(n))) {
  for (const preset of (process.env.P ?? 'clean,rough').split(',') as ('clean' | 'rough')[]) {
    const d = openDocument(modelFromMesh('m', mesh), { keepUvs: false });
    const t = performance.now();
    const p = await answerQuestion(d, 'proposal', { preset }, ctx);
    console.log(
      name,
      preset,
      ((performance.now() - t) / 1000).toFixed(1),
      's',
      p.shells.length,
      'shells',
      p.length.toFixed(2),
      'worst',
      Math.max(...p.shells.map((s) => s.l2 ?? 99)).toFixed(3),
      'on itself',
      p.shells.filter((s) => s.liesOnItself).length,
      'hidden',
      p.hidden.toFixed(2),
      p.symmetric,
    );
  }
}
