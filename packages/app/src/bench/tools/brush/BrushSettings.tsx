import { BRUSHES, type Brush } from '@blunt-hem/core/relax/brush';
import { Checkbox, Select } from 'antd';
import { useShallow } from 'zustand/react/shallow';
import { useBench } from '../../../store/bench.ts';
import { RailSlider } from '../../rail/RailSlider.tsx';

const LABELS: Readonly<Record<Brush, string>> = {
  push: 'Push',
  relax: 'Relax',
  gather: 'Gather',
  spread: 'Spread',
};

/** What the hand does, how far and how strongly. */
export function BrushSettings() {
  const { handBrush, handRadius, handStrength, handMirrored } = useBench(
    useShallow((s) => ({
      handBrush: s.handBrush,
      handRadius: s.handRadius,
      handStrength: s.handStrength,
      handMirrored: s.handMirrored,
    })),
  );
  return (
    <>
      <Select<Brush>
        size="small"
        className="wide"
        aria-label="What the hand does"
        value={handBrush}
        options={BRUSHES.map((value) => ({ value, label: LABELS[value] }))}
        onChange={(value) => useBench.setState({ handBrush: value })}
      />
      <RailSlider
        left="Radius"
        min={8}
        max={240}
        value={handRadius}
        onChange={(value) => useBench.setState({ handRadius: value })}
        label="Radius of the hand, pixels"
      />
      <RailSlider
        left="Strength"
        min={0.05}
        max={1}
        step={0.05}
        value={handStrength}
        onChange={(value) => useBench.setState({ handStrength: value })}
        label="Strength of the hand"
      />
      <Checkbox
        className="rail-check"
        checked={handMirrored}
        onChange={(event) => useBench.setState({ handMirrored: event.target.checked })}
      >
        Mirrored
      </Checkbox>
    </>
  );
}
