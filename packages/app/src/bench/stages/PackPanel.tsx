import { Button, InputNumber, Select } from 'antd';
import { useShallow } from 'zustand/react/shallow';
import { useBench } from '../../store/bench.ts';
import type { PackingSlice } from '../../store/packing.ts';
import { PACK_EFFORTS } from '../commands/packing.ts';
import { densityOf, usualScale } from '../overlays/against.ts';
import { parameterOf } from '../parameterOf.ts';

const TURNINGS: Readonly<Record<PackingSlice['packTurning'], string>> = {
  none: 'not at all',
  half: 'half turns',
  quarter: 'quarter turns',
  eighth: 'eighth turns',
  free: 'any way',
  grain: 'along the grain',
};

const SPREADS: Readonly<Record<PackingSlice['packSpread'], string>> = {
  stay: 'where it lies',
  even: 'evenly',
  part: 'by part',
  material: 'by material',
  patch: 'by patch',
};

const NEAR: Readonly<Record<PackingSlice['packNear'], string>> = {
  none: 'anything',
  part: 'its part',
  material: 'its material',
  patch: 'its patch',
};

const ofDensity = parameterOf('pack', 'density');

/** How shells are packed. */
export function PackPanel() {
  const { packTurning, packSpread, packNear, packEffort, packDensity, packRegion } = useBench(
    useShallow((s) => ({
      packTurning: s.packTurning,
      packSpread: s.packSpread,
      packNear: s.packNear,
      packEffort: s.packEffort,
      packDensity: s.packDensity,
      packRegion: s.packRegion,
    })),
  );
  const count = useBench((s) => s.tiles.length);
  return (
    <>
      <RailSelect
        id="pack-turning"
        label="Turned"
        value={packTurning}
        options={optionsOf(TURNINGS)}
        take={(value) => useBench.setState({ packTurning: value })}
      />
      <RailSelect
        id="pack-effort"
        label="Time"
        value={packEffort}
        options={PACK_EFFORTS.map((value) => ({ value, label: value }))}
        take={(value) => useBench.setState({ packEffort: value })}
      />
      {count > 1 && packDensity === undefined && !packRegion && (
        <RailSelect
          id="pack-spread"
          label="To tiles"
          value={packSpread}
          options={optionsOf(SPREADS)}
          take={(value) => useBench.setState({ packSpread: value })}
        />
      )}
      <RailSelect
        id="pack-near"
        label="Near"
        value={packNear}
        options={optionsOf(NEAR)}
        take={(value) => useBench.setState({ packNear: value })}
      />
      <label className="rail-field" htmlFor="pack-density">
        Texels a unit
        <InputNumber
          id="pack-density"
          size="small"
          {...ofDensity.range}
          value={packDensity}
          placeholder="most"
          onChange={(value) => useBench.setState({ packDensity: value || undefined })}
        />
      </label>
      <TakeDensity />
      {packRegion && (
        <Button size="small" onClick={() => useBench.setState({ packRegion: undefined })}>
          Whole tiles again
        </Button>
      )}
    </>
  );
}

/** One of some choices, with its name before it. */
function RailSelect<K extends string>(props: {
  readonly id: string;
  readonly label: string;
  readonly value: K;
  readonly options: { readonly value: K; readonly label: string }[];
  readonly take: (value: K) => void;
}) {
  const { id, label, value, options, take } = props;
  return (
    <label className="rail-field" htmlFor={id}>
      {label}
      <Select<K> id={id} size="small" value={value} options={options} onChange={take} />
    </label>
  );
}

/** Takes over the texture scale that the chosen shell has, or else most of the surface. */
function TakeDensity() {
  const shells = useBench((s) => s.shells);
  const tiles = useBench((s) => s.tiles);
  const chosen = useBench((s) => s.chosen);
  const [only] = chosen;
  const isOne = chosen.size === 1;
  const density = isOne ? densityOf(shells[only], tiles) : usualScale({ shells, tiles });
  if (!density || !Number.isFinite(density)) return null;
  return (
    <Button
      size="small"
      type="link"
      className="rail-link"
      onClick={() => useBench.setState({ packDensity: Number(density.toPrecision(4)) })}
    >
      as {isOne ? `shell ${only + 1}` : 'most'} has: {Number(density.toPrecision(3))}
    </Button>
  );
}

const optionsOf = <K extends string>(labels: Readonly<Record<K, string>>) =>
  (Object.keys(labels) as K[]).map((value) => ({ value, label: labels[value] }));
