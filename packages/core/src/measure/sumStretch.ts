import type { ShellStretch } from './stretch.ts';

/** Stretch without its triangles. */
export type StretchFigures = Omit<ShellStretch, 'logArea' | 'angle'>;

/** Shells taken together, each weighing as much as its surface. Each one's stretch stays scale-free by itself. */
export function sumStretch(shells: Iterable<StretchFigures>): StretchFigures {
  let [area, uvArea, squares, angles, logs, linf, flipped, collapsed] = [0, 0, 0, 0, 0, 0, 0, 0];
  for (const each of shells) {
    area += each.area;
    uvArea += each.uvArea;
    squares += each.l2 ** 2 * each.area;
    angles += each.angleMean * each.area;
    logs += Math.log(each.areaMean) * each.area;
    linf = Math.max(linf, each.linf);
    flipped += each.flipped;
    collapsed += each.collapsed;
  }
  const mean = (sum: number) => (area > 0 ? sum / area : 0);
  return {
    l2: Math.sqrt(mean(squares)),
    linf,
    angleMean: mean(angles),
    areaMean: area > 0 ? Math.exp(mean(logs)) : 0,
    flipped,
    collapsed,
    area,
    uvArea,
  };
}

/** What of stretch is told of a shell as a whole. */
export const figuresOnly = ({ logArea: _area, angle: _angle, ...figures }: ShellStretch): StretchFigures =>
  figures;
