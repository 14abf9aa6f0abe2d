import type { SymmetryChoice } from '@blunt-hem/core/questions/symmetry';
import { Select } from 'antd';
import { useBench } from '../../store/bench.ts';

const CHOICES: readonly { readonly value: SymmetryChoice | 'off'; readonly label: string }[] = [
  { value: 'off', label: 'Off' },
  { value: 'mirror', label: 'Mirror plane, found' },
  { value: 'turn', label: 'Turns about an axis, found' },
  { value: 'x', label: 'Mirror across x = 0' },
  { value: 'y', label: 'Mirror across y = 0' },
  { value: 'z', label: 'Mirror across z = 0' },
];

/** Whether every pick takes its counterpart along, and by which plane or axis. */
export function SymmetryPanel() {
  const by = useBench((s) => s.symmetryBy);
  const symmetry = useBench((s) => s.symmetry);
  const lonely = symmetry ? symmetry.edges.reduce((sum, e) => sum + (e < 0 ? 1 : 0), 0) : 0;
  return (
    <>
      <Select
        size="small"
        className="wide"
        aria-label="Symmetry"
        value={by}
        options={[...CHOICES]}
        onChange={(value) => useBench.setState({ symmetryBy: value })}
      />
      <p className="selection-hint" role="status">
        {by === 'off'
          ? 'While it is on, everything that is picked takes its counterpart along.'
          : !symmetry
            ? 'Being looked for …'
            : symmetry.byPlace
              ? `${describeSymmetry(symmetry.symmetry)} Its sides are meshed differently: what is picked is found on the other side by place.`
              : `${describeSymmetry(symmetry.symmetry)} ${lonely > 0 ? `${lonely.toLocaleString('en-GB')} edges have no counterpart: they are drawn in ochre.` : 'Every edge has its counterpart.'}`}
      </p>
    </>
  );
}

function describeSymmetry({
  kind,
  direction,
  fold,
}: {
  readonly kind: string;
  readonly direction: readonly number[];
  readonly fold: number;
}): string {
  const axis = 'xyz'[direction.findIndex((d) => Math.abs(d) > 0.5)];
  return kind === 'mirror' ? `Mirrored across ${axis}.` : `Comes round ${fold} times about ${axis}.`;
}
