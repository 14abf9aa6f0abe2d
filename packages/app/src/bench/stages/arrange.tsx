import { pack, tidy } from '../commands/packing.ts';
import { PLACING } from '../commands/placing.ts';
import { ArrangePanel } from '../details/ArrangePanel.tsx';
import { grain } from '../tools/grain.ts';
import { region } from '../tools/region.ts';
import { PackPanel } from './PackPanel.tsx';
import type { StageView } from './stage.ts';

export const arrange: StageView = {
  name: 'arrange',
  label: 'Arrange',
  tools: [region, grain],
  commands: [pack, tidy, ...PLACING],
  Panel: PackPanel,
  Details: ArrangePanel,
  mark: () => '',
};
