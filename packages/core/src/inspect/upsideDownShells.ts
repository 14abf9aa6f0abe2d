import { shellOf, shellUv } from '../document/document.ts';
import { upwards } from '../unfold/upright.ts';
import { type Inspection, ofShells } from './inspection.ts';

/** Shells whose up points down by more than this, degrees from up, stand on their heads. */
const ON_ITS_HEAD = 120;
/** Where less of a shell agrees on what is up, it has none. */
const AGREED = 0.5;

export const upsideDownShells: Inspection = {
  kind: 'upside-down',
  severity: 'hint',
  thing: ['shell that stands on its head', 'shells that stand on their heads'],
  effect: 'Up on the model is down on the texture: cloth, wood and dirt run the wrong way.',
  find: (subject) =>
    ofShells(
      subject,
      [...subject.boxes.keys()].filter((s) => {
        if (!subject.boxes[s]) return false;
        const shell = shellOf(subject.document, s);
        const uv = shellUv(subject.document, shell);
        if (!uv) return false;
        const [u, v, strength] = upwards(shell, uv, subject.document.upAxis);
        return strength > AGREED && Math.abs(Math.atan2(u, v)) > (ON_ITS_HEAD * Math.PI) / 180;
      }),
      (shells) => ({
        label: 'Turn them upright',
        request: { operation: 'turn-upright', params: { shells } },
      }),
    ),
};
