import { pack } from '../commands/packing.ts';
import { PLACING } from '../commands/placing.ts';
import { TilesPanel } from '../details/TilesPanel.tsx';
import { PackPanel } from './PackPanel.tsx';
import type { StageView } from './stage.ts';

export const arrange: StageView = {
  name: 'arrange',
  label: 'Arrange',
  tools: [],
  commands: [pack, ...PLACING],
  Panel: PackPanel,
  Details: TilesPanel,
  mark: () => '',
};
