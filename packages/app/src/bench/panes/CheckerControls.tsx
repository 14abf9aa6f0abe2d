import { IconLayoutBoard } from '@tabler/icons-react';
import { Button, Dropdown, InputNumber, Select, Slider, Switch, Tooltip } from 'antd';
import { useRef } from 'react';
import { useShallow } from 'zustand/react/shallow';
import type { CheckerUnit } from '../../storage/looks.ts';
import { hint } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { takeImage } from '../../store/checker.ts';
import { CHECKERS } from '../checkers/index.ts';

function takeKind(kind: string): void {
  if (kind === 'image' && !useBench.getState().ownImage) {
    hint('Drop an image on a pane, or choose one among the settings of the Board.');
    return;
  }
  useBench.setState({ checkerKind: kind, checker: true });
}

const NONE = 'none';

/** The checker, on or off, and which. */
export function CheckerChoice({ inShort }: { readonly inShort: boolean }) {
  const checker = useBench((s) => s.checker);
  const kind = useBench((s) => s.checkerKind);
  const turn = (on: boolean) => useBench.setState({ checker: on });
  if (inShort)
    return (
      <Dropdown
        trigger={['click']}
        menu={{
          items: [
            { key: NONE, label: 'No checker' },
            ...CHECKERS.map(({ name, label, help }) => ({ key: name, label, title: help })),
          ],
          selectable: true,
          selectedKeys: [checker ? kind : NONE],
          onClick: ({ key }) => (key === NONE ? turn(false) : takeKind(key)),
        }}
      >
        <Button
          size="small"
          icon={<IconLayoutBoard size={15} />}
          aria-label="Which checker"
          aria-pressed={checker}
        />
      </Dropdown>
    );
  return (
    <span className="pane-pair">
      <Tooltip title="Checker (V)">
        <Switch size="small" aria-label="Checker" checked={checker} onChange={turn} />
      </Tooltip>
      <Select<string>
        size="small"
        className="pane-select"
        aria-label="Which checker"
        value={kind}
        popupMatchSelectWidth={180}
        options={CHECKERS.map(({ name, label, help }) => ({ value: name, label, title: help }))}
        onChange={takeKind}
      />
    </span>
  );
}

const unitsOf = (texture: number): { value: CheckerUnit; label: string }[] => [
  { value: 'repeats', label: 'Squares across' },
  { value: 'texels', label: `Texels of ${texture}` },
  { value: 'units', label: 'Model units' },
];

/** How large a square is: in squares across the tile, in texels, or in units of the model. */
export function SquareSize() {
  const {
    checkerUnit: unit,
    repeats,
    squareTexels,
    squareUnits,
    tiles,
  } = useBench(
    useShallow((s) => ({
      checkerUnit: s.checkerUnit,
      repeats: s.repeats,
      squareTexels: s.squareTexels,
      squareUnits: s.squareUnits,
      tiles: s.tiles,
    })),
  );
  const field = {
    repeats: {
      value: repeats,
      min: 1,
      max: 512,
      step: 1,
      set: (value: number) => useBench.setState({ repeats: Math.round(value) }),
    },
    texels: {
      value: squareTexels,
      min: 1,
      max: 2048,
      step: 1,
      set: (value: number) => useBench.setState({ squareTexels: value }),
    },
    units: {
      value: squareUnits,
      min: 1e-6,
      max: 1e6,
      step: 0.1,
      set: (value: number) => useBench.setState({ squareUnits: value }),
    },
  }[unit];
  return (
    <span className="pane-pair">
      <Select<CheckerUnit>
        size="small"
        aria-label="Squares are told in"
        value={unit}
        popupMatchSelectWidth={150}
        options={unitsOf(tiles[0].height)}
        onChange={(value) => useBench.setState({ checkerUnit: value })}
      />
      <InputNumber
        size="small"
        className="pane-number"
        aria-label="Size of the squares"
        min={field.min}
        max={field.max}
        step={field.step}
        value={field.value}
        onChange={(value) => value && field.set(value)}
      />
    </span>
  );
}

export function Strength() {
  const strength = useBench((s) => s.checkerStrength);
  return (
    <span className="pane-pair">
      Strength
      <Slider
        className="pane-slider"
        min={0.1}
        max={1}
        step={0.05}
        value={strength}
        tooltip={{ formatter: (value) => `${Math.round(100 * (value ?? 1))} %` }}
        ariaLabelForHandle="Strength of the checker"
        onChange={(value) => useBench.setState({ checkerStrength: value })}
      />
    </span>
  );
}

/** A picture of the artist's own. */
export function ImageChoice() {
  const input = useRef<HTMLInputElement>(null);
  const name = useBench((s) => s.ownImage?.name);
  return (
    <span className="pane-pair">
      <Button size="small" onClick={() => input.current?.click()}>
        {name ? `Another image than ${name}` : 'Own image …'}
      </Button>
      <input
        ref={input}
        type="file"
        accept="image/*"
        hidden
        aria-label="Own image"
        onChange={({ target }) => {
          const [file] = target.files ?? [];
          if (file) void takeImage(file);
          target.value = '';
        }}
      />
    </span>
  );
}
