import { plural } from '@blunt-hem/core/plural';
import { IconLayoutBoard, IconLayoutCollage } from '@tabler/icons-react';
import { perform, picked } from '../../store/acts.ts';
import { type BenchStore, useBench } from '../../store/bench.ts';
import type { PackEffort } from '../../store/packing.ts';
import { chosenOrAll } from '../../store/select.ts';
import { handle } from '../panes/rendererHandle.ts';
import type { Command } from './command.ts';

/** Rounds that no layout comes to before it is stopped. */
const ENDLESS = 1_000_000;

const EFFORTS: Readonly<Record<PackEffort, { readonly steps?: number; readonly seconds?: number }>> = {
  'at once': { steps: 0 },
  briefly: {},
  '10 s': { steps: ENDLESS, seconds: 10 },
  'a minute': { steps: ENDLESS, seconds: 60 },
  'until stopped': { steps: ENDLESS },
};

export const PACK_EFFORTS = Object.keys(EFFORTS) as PackEffort[];

/** What is packed, and into what: “4 shells there”. */
const meant = (verb: string, { chosen, tiles, packRegion }: BenchStore): string => {
  if (chosen.size > 0) return `${verb} ${plural(chosen.size, 'shell')}${packRegion ? ' there' : ''}`;
  if (packRegion) return `${verb} region`;
  return tiles.length === 1 ? `${verb} the tile` : `${verb} ${tiles.length} tiles`;
};

async function packAs(start: 'afresh' | 'here'): Promise<void> {
  await picked();
  const { packTurning, packSpread, packNear, packEffort, packDensity, packRegion } = useBench.getState();
  const done = await perform('pack', {
    shells: chosenOrAll(),
    start,
    turning: packTurning,
    spread: packSpread,
    near: packNear,
    density: packDensity,
    region: packRegion,
    ...EFFORTS[packEffort],
  });
  if (done?.changed) handle.renderer?.board.frame();
}

export const pack: Command = {
  name: 'pack',
  label: (state) => meant('Pack', state),
  help: 'Lay all shells into their tiles as large as they go, or the selected ones beside what stays',
  key: 'm',
  icon: IconLayoutBoard,
  main: true,
  act: () => packAs('afresh'),
};

export const tidy: Command = {
  name: 'tidy',
  label: (state) => meant('Tidy', state),
  help: 'Bring shells clear of one another and to one density near where they lie, without turning them',
  key: 'shift+m',
  icon: IconLayoutCollage,
  act: () => packAs('here'),
};
