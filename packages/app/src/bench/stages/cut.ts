import { cut as cutEdges, openPieces, sew } from '../commands/seams.ts';
import { CutDetails } from '../details/CutDetails.tsx';
import { box } from '../tools/box.ts';
import { dart } from '../tools/dart.tsx';
import { lasso } from '../tools/lasso.ts';
import { paint } from '../tools/paint.tsx';
import { pick } from '../tools/pick.ts';
import { route } from '../tools/route/route.ts';
import { shift } from '../tools/shift.tsx';
import type { StageView } from './stage.ts';

export const cut: StageView = {
  name: 'cut',
  label: 'Cut',
  tools: [pick, box, lasso, paint, route, dart, shift],
  Details: CutDetails,
  commands: [cutEdges, sew, openPieces],
  mark({ shells }) {
    const stuck = shells.filter(({ topology }) => topology && !topology.canUnfold).length;
    return stuck > 0 ? `${stuck} cannot lie flat` : '';
  },
};
