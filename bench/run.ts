import { cpus } from 'node:os';
import { angleBasedSpeed, quality } from './angles.ts';
import { clear } from './clear.ts';
import { command } from './command.ts';
import { conformal, movedPins } from './conformal.ts';
import { damage } from './damage.ts';
import { extremes } from './extremes.ts';
import { hard } from './hard.ts';
import { health } from './health.ts';
import { history } from './history.ts';
import { factorisation } from './linear.ts';
import { flips, smallShells } from './many.ts';
import { overlaps } from './overlaps.ts';
import { pack } from './pack.ts';
import { reading } from './reading.ts';
import { relaxing } from './relaxing.ts';
import { roundTrip } from './roundTrip.ts';
import { seams, turning, views, ways } from './seams.ts';
import { stopping } from './stopping.ts';
import { printed, type Table } from './table.ts';
import { wandering } from './wandering.ts';

/**
 * Cost and quality in one run on one machine, told as ratios. `npm run bench -- --large` adds sizes up to a million
 * triangles; names of sections after it run those alone.
 */
const sections: Record<string, (large: boolean) => Table | Promise<Table>> = {
  conformal,
  command,
  pins: movedPins,
  relax: relaxing,
  clear,
  angles: angleBasedSpeed,
  quality,
  factorise: factorisation,
  flips,
  hard,
  many: smallShells,
  pack,
  ways,
  turning,
  seams,
  views,
  stop: stopping,
  overlaps,
  reading,
  roundTrip,
  extremes,
  health,
  history,
  damage,
  wander: wandering,
};

const names = process.argv.slice(2).filter((a) => a !== '--large');
const unknown = names.find((name) => !(name in sections));
if (unknown) {
  process.stderr.write(`No section “${unknown}”: there are ${Object.keys(sections).join(', ')}.\n`);
  process.exit(1);
}
const { model } = cpus()[0];
const date = new Date().toISOString().slice(0, 10);
process.stdout.write(`${date}, ${model}, ${cpus().length} cores, Node ${process.versions.node}\n\n`);
for (const name of names.length > 0 ? names : Object.keys(sections)) {
  process.stdout.write(`${printed(await sections[name](process.argv.includes('--large')))}\n`);
}
