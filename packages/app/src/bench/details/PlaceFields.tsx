import { aspectOf, texelsAt } from '@blunt-hem/core/surface/tiles';
import { InputNumber } from 'antd';
import { useState } from 'react';
import { useBench } from '../../store/bench.ts';
import { boxOfChosen } from '../../store/select.ts';
import { aboutMiddle, turn } from '../commands/placing.ts';
import { transformChosen } from '../tools/holdShells.ts';

/** Where the selected shells lie, how large and how turned: exact values, taken when Enter is pressed or the field is left. */
export function PlaceFields() {
  const chosen = useBench((s) => s.chosen);
  const shells = useBench((s) => s.shells);
  const tiles = useBench((s) => s.tiles);
  const box = boxOfChosen({ chosen, shells });
  if (!box) return null;
  const [u, v] = box;
  const density = densityOf(
    [...chosen].flatMap((s) => shells[s]?.stretch ?? []),
    texelsAt(tiles, box),
  );
  // As files tell it: from 0 to 1 across the tile, whatever its shape.
  const wide = aspectOf(tiles);
  return (
    <fieldset className="place-fields">
      <legend>Place of {chosen.size === 1 ? 'the shell' : `the ${chosen.size} shells`}</legend>
      <Field
        label="Left, u"
        value={u / wide}
        step={0.01}
        onTake={(to) => transformChosen([1, 0, 0, 1, to * wide - u, 0])}
      />
      <Field
        label="Lower, v"
        value={v}
        step={0.01}
        onTake={(to) => transformChosen([1, 0, 0, 1, 0, to - v])}
      />
      <Field label="Turn by, °" value={0} step={5} onTake={turn} />
      <Field
        label="Scale by, ×"
        value={1}
        step={0.1}
        min={0.001}
        onTake={(to) => aboutMiddle(to, 0, 0, to)}
      />
      {density !== undefined && (
        <Field
          label="Density, px a unit"
          value={density}
          step={10}
          min={0.001}
          onTake={(to) => aboutMiddle(to / density, 0, 0, to / density)}
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

function Field({ label, value, step, min, onTake }: FieldProps) {
  /** What is being typed; nothing when the field shows what is. */
  const [typed, setTyped] = useState<number | null>();
  const id = `place-${label.replaceAll(/\W+/g, '-').toLowerCase()}`;
  const take = () => {
    setTyped(undefined);
    if (typed !== undefined && typed !== null && typed !== value) onTake(typed);
  };
  return (
    <label htmlFor={id}>
      {label}
      <InputNumber
        id={id}
        size="small"
        step={step}
        min={min}
        value={typed === undefined ? Number(value.toFixed(4)) : typed}
        onChange={setTyped}
        onPressEnter={take}
        onBlur={take}
      />
    </label>
  );
}
