import { cut as cutEdges, openPieces, sew } from '../commands/seams.ts';
import { box } from '../tools/box.ts';
import { pick } from '../tools/pick.ts';
import type { StageView } from './stage.ts';

export const cut: StageView = {
  name: 'cut',
  label: 'Cut',
  tools: [pick, box],
  commands: [cutEdges, sew, openPieces],
  mark({ shells }) {
    const stuck = shells.filter(({ verdict }) => verdict && !verdict.canUnfold).length;
    return stuck > 0 ? `${stuck} cannot lie flat` : '';
  },
};
