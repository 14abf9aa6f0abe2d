import { plural } from '@blunt-hem/core/plural';
import { IconLayoutBoard } from '@tabler/icons-react';
import { perform, picked } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
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

export const pack: Command = {
  name: 'pack',
  label: ({ chosen, tiles }) =>
    chosen.size > 0
      ? `Pack ${plural(chosen.size, 'shell')}`
      : tiles.length === 1
        ? 'Pack the tile'
        : `Pack the ${tiles.length} tiles`,
  help: 'Lay all shells into their tiles as large as they go, or the selected ones beside what stays',
  key: 'm',
  icon: IconLayoutBoard,
  main: true,
  async act() {
    await picked();
    const { packTurning, packSpread, packEffort, packDensity } = useBench.getState();
    const done = await perform('pack', {
      shells: chosenOrAll(),
      turning: packTurning,
      spread: packSpread,
      density: packDensity,
      ...EFFORTS[packEffort],
    });
    if (done?.changed) handle.renderer?.board.frame();
  },
};
