import { usualDensity } from '@blunt-hem/core/inspect/densities';
import { Collapse } from 'antd';
import { useMemo } from 'react';
import { type BenchStore, useBench } from '../../store/bench.ts';
import { selectShells } from '../../store/select.ts';
import { densitiesOf } from '../overlays/against.ts';

/** So many parts are listed, those that differ most from the rest. */
const MOST = 60;

/** “214 texels a unit”. */
export const inTexels = (density: number): string =>
  `${Number(density.toPrecision(3)).toLocaleString('en-GB')} texels a unit`;

interface PartDensity {
  readonly part: number;
  readonly name: string;
  readonly density: number;
  readonly shells: ReadonlySet<number>;
}

/** How fine the texture is on each part of the model that has several, the odd ones first. */
export function DensityByPart() {
  const model = useBench((s) => s.model);
  const shells = useBench((s) => s.shells);
  const tiles = useBench((s) => s.tiles);
  const faceShell = useBench((s) => s.flat?.faceShell);
  const rows = useMemo(
    () => (model && faceShell ? densityByPart({ model, shells, tiles, faceShell }) : []),
    [model, shells, tiles, faceShell],
  );
  if (rows.length < 2) return null;
  return (
    <Collapse
      ghost
      size="small"
      items={[
        {
          key: 'parts',
          label: `Texture scale of ${rows.length} parts`,
          children: (
            <ul className="patches">
              {rows.slice(0, MOST).map(({ part, name, density, shells: own }) => (
                <li key={part}>
                  <button
                    type="button"
                    className="part-density"
                    title="Select its shells"
                    onClick={() => selectShells(own)}
                  >
                    {name || 'Unnamed'}
                  </button>
                  <span>{inTexels(density)}</span>
                </li>
              ))}
            </ul>
          ),
        },
      ]}
    />
  );
}

/** Parts that lie flat with the density of most of their shells, those first that differ most from most of the surface. */
export function densityByPart({
  model,
  shells,
  tiles,
  faceShell,
}: Pick<BenchStore, 'shells' | 'tiles'> & {
  readonly model: Pick<NonNullable<BenchStore['model']>, 'parts'>;
  readonly faceShell: Uint32Array;
}): PartDensity[] {
  const [list] = model.parts;
  if (!list) return [];
  const all = densitiesOf({ shells, tiles });
  const own = list.names.map(() => new Set<number>());
  faceShell.forEach((s, f) => {
    own[list.facePart[f]]?.add(s);
  });
  const usual = usualDensity(all) ?? 1;
  return list.names
    .flatMap((name, part) => {
      const ofPart = [...own[part]];
      const density = usualDensity({
        area: Float64Array.from(ofPart, (s) => all.area[s]),
        density: Float64Array.from(ofPart, (s) => all.density[s]),
      });
      return density === undefined ? [] : [{ part, name, density, shells: own[part] }];
    })
    .sort((a, b) => Math.abs(Math.log(b.density / usual)) - Math.abs(Math.log(a.density / usual)));
}
