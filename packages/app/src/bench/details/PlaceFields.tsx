import { inDigits } from '@blunt-hem/core/plural';
import type { UvMatrix } from '@blunt-hem/core/surface/similarity';
import { aspectOf, texelsAt } from '@blunt-hem/core/surface/tiles';
import { InputNumber, Select } from 'antd';
import { useState } from 'react';
import { hint } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { boxOfChosen } from '../../store/select.ts';
import { turn } from '../commands/placing.ts';
import { aboutPivot, mapAbout, useSubject } from '../tools/subject.ts';

/** How many of a unit one height of a tile is. */
interface Unit {
  readonly label: string;
  /** Across and up. */
  readonly per: readonly [number, number];
  readonly step: number;
}

/** Where what is selected lies, how large and how turned: exact values, taken when Enter is pressed or the field is left. */
export function PlaceFields() {
  const subject = useSubject();
  const chosen = useBench((s) => s.chosen);
  const shells = useBench((s) => s.shells);
  const tiles = useBench((s) => s.tiles);
  const pivot = useBench((s) => s.pivot);
  const [unitName, setUnit] = useState('tile');
  // Where locked shells lie is told, and not changed.
  const box = subject?.box ?? boxOfChosen({ chosen, shells });
  if (!box) return null;
  const transform = (matrix: UvMatrix) => void subject?.transform(matrix);
  const [u, v, right, upper] = box;
  const texels = texelsAt(tiles, box);
  const density = densityOf(
    [...chosen].flatMap((s) => shells[s]?.stretch ?? []),
    texels,
  );
  const units: Record<string, Unit> = {
    // As files tell it: from 0 to 1 across the tile, whatever its shape.
    tile: { label: 'parts of the tile', per: [1 / aspectOf(tiles), 1], step: 0.01 },
    texels: { label: 'texels', per: [texels, texels], step: 1 },
    ...(density !== undefined && {
      model: { label: 'units of the model', per: [texels / density, texels / density], step: 0.01 },
    }),
  };
  const { per, step } = units[unitName] ?? units.tile;
  const [width, height] = [right - u, upper - v];
  return (
    <fieldset className="place-fields" disabled={!subject}>
      <legend>
        Place of {['what is selected', 'the shell'][chosen.size] ?? `the ${chosen.size} shells`}
      </legend>
      <Select
        size="small"
        aria-label="Unit of places and sizes"
        value={unitName in units ? unitName : 'tile'}
        onChange={setUnit}
        options={Object.entries(units).map(([value, { label }]) => ({ value, label }))}
      />
      <Field
        label="Left, u"
        value={u * per[0]}
        step={step}
        onTake={(to) => transform([1, 0, 0, 1, to / per[0] - u, 0])}
      />
      <Field
        label="Lower, v"
        value={v * per[1]}
        step={step}
        onTake={(to) => transform([1, 0, 0, 1, 0, to / per[1] - v])}
      />
      {width > 0 && (
        <Field
          label="Width"
          value={width * per[0]}
          step={step}
          min={0.001}
          onTake={(to) => transform(mapAbout(pivot ?? [u, v], [to / per[0] / width, 0, 0, 1]))}
        />
      )}
      {height > 0 && (
        <Field
          label="Height"
          value={height * per[1]}
          step={step}
          min={0.001}
          onTake={(to) => transform(mapAbout(pivot ?? [u, v], [1, 0, 0, to / per[1] / height]))}
        />
      )}
      <Field label="Turn by, °" value={0} step={5} onTake={turn} />
      <Field
        label="Scale by, ×"
        value={1}
        step={0.1}
        min={0.001}
        onTake={(to) => aboutPivot([to, 0, 0, to])}
      />
      {density !== undefined && (
        <Field
          label="Density, px a unit"
          value={density}
          step={10}
          min={0.001}
          onTake={(to) => aboutPivot([to / density, 0, 0, to / density])}
        />
      )}
    </fieldset>
  );
}

/** Pixels of the texture to a unit of the model. */
function densityOf(
  stretches: readonly { readonly area: number; readonly uvArea: number }[],
  texture: number,
): number | undefined {
  const [area, uvArea] = (['area', 'uvArea'] as const).map((key) =>
    stretches.reduce((sum, stretch) => sum + stretch[key], 0),
  );
  return area > 0 && uvArea > 0 ? texture * Math.sqrt(uvArea / area) : undefined;
}

interface FieldProps {
  readonly label: string;
  readonly value: number;
  readonly step: number;
  readonly min?: number;
  readonly onTake: (to: number) => void;
}

/** Larger than this, either way, nothing that is typed makes sense. */
const MOST = 1e6;

function Field({ label, value, step, min = -MOST, onTake }: FieldProps) {
  /** What is being typed; nothing when the field shows what is. */
  const [typed, setTyped] = useState<number | null>();
  const id = `place-${label.replaceAll(/\W+/g, '-').toLowerCase()}`;
  const take = () => {
    setTyped(undefined);
    if (typed === undefined || typed === null || typed === value) return;
    if (typed < min || typed > MOST)
      hint(`“${label}” goes from ${inDigits(min)} to ${inDigits(MOST)}: ${typed} was not taken.`);
    else onTake(typed);
  };
  return (
    <label htmlFor={id}>
      {label}
      <InputNumber
        id={id}
        size="small"
        step={step}
        value={typed === undefined ? Number(value.toFixed(4)) : typed}
        onChange={setTyped}
        onPressEnter={take}
        onBlur={take}
      />
    </label>
  );
}
