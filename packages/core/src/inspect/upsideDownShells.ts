import { shellOf, shellUv } from '../document/document.ts';
import { grainInFlat } from '../document/grain.ts';
import { type Inspection, ofShells } from './inspection.ts';

/** Degrees by which up may point elsewhere before a shell stands on its head, and by which a grain line may. */
const [ON_ITS_HEAD, OFF_GRAIN] = [120, 30];

export const upsideDownShells: Inspection = {
  kind: 'upside-down',
  when: 'up on the model, as far as more than half of the shell agrees on it, is more than 120° off from up on the texture',
  severity: 'hint',
  thing: ['shell on its head, or across its grain', 'shells on their heads, or across their grain'],
  effect: 'Up on the model is down on the texture: cloth, wood and dirt run the wrong way.',
  find: (subject) =>
    ofShells(
      subject,
      [...subject.boxes.keys()].filter((s) => {
        if (!subject.boxes[s]) return false;
        const shell = shellOf(subject.document, s);
        const uv = shellUv(subject.document, shell);
        const grain = uv && grainInFlat(subject.document, s, shell, uv);
        if (!grain) return false;
        const [u, v] = grain.along;
        const off = (Math.abs(Math.atan2(u, v)) * 180) / Math.PI;
        return off > (grain.isLine ? OFF_GRAIN : ON_ITS_HEAD);
      }),
      (shells) => ({
        label: 'Turn them upright',
        request: { operation: 'turn-upright', params: { shells } },
      }),
    ),
};
