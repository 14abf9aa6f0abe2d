import { METHODS, type Method } from '@blunt-hem/core/unfold/unfold';
import { Checkbox, InputNumber, Select } from 'antd';
import { useShallow } from 'zustand/react/shallow';
import { perform } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import {
  grain,
  layStraight,
  letStayGo,
  makeStay,
  pinPoints,
  relax,
  unfold as unfoldShells,
} from '../commands/flattening.ts';
import { TrialsPanel } from '../details/TrialsPanel.tsx';
import { UvSetsPanel } from '../details/UvSetsPanel.tsx';
import { parameterOf } from '../parameterOf.ts';
import { RailSlider } from '../rail/RailSlider.tsx';
import { brush } from '../tools/brush/brush.ts';
import { pin } from '../tools/pin.tsx';
import { project } from '../tools/project/project.ts';
import type { StageView } from './stage.ts';

const ofBalance = parameterOf('relax', 'balance');
const seconds = parameterOf('relax', 'seconds');

export const unfold: StageView = {
  name: 'unfold',
  label: 'Unfold',
  tools: [pin, brush, project],
  commands: [unfoldShells, relax, layStraight, pinPoints, makeStay, letStayGo, grain],
  Details() {
    return (
      <>
        <UvSetsPanel />
        <TrialsPanel />
      </>
    );
  },
  Panel() {
    return (
      <>
        <MethodChoice />
        <RelaxSettings />
        <SurfaceChoice />
      </>
    );
  },
  mark({ shells }) {
    const changed = shells.filter(({ stale, unfolded }) => stale && unfolded).length;
    return changed > 0 ? `${changed} changed since` : '';
  },
};

const METHOD_LABELS: Readonly<Record<Method, string>> = {
  conformal: 'Conformal unfold',
  'angle-based': 'Angle-based unfold',
};

/** By which method shells are unfolded; each keeps the one it had until another is chosen. */
function MethodChoice() {
  const method = useBench((s) => s.method);
  const used = useBench((s) => methodOf(s.shells.filter((_, i) => s.chosen.size === 0 || s.chosen.has(i))));
  return (
    <Select<Method>
      size="small"
      className="wide"
      aria-label="Method"
      placeholder="Each as before"
      value={method ?? used}
      options={METHODS.map((value) => ({ value, label: METHOD_LABELS[value] }))}
      onChange={(value) => useBench.setState({ method: value })}
    />
  );
}

/** The method that all of some shells share. */
const methodOf = (rows: readonly { readonly method: Method }[]): Method | undefined =>
  rows.every(({ method }) => method === rows[0].method) ? rows[0]?.method : undefined;

function RelaxSettings() {
  const { balance, keepBorder, budget } = useBench(
    useShallow((s) => ({ balance: s.balance, keepBorder: s.keepBorder, budget: s.budget })),
  );
  return (
    <>
      <RailSlider
        left="Angle"
        right="Area"
        {...ofBalance.range}
        step={0.05}
        value={balance}
        onChange={(value) => useBench.setState({ balance: value })}
        label="Relax for angles or for area"
      />
      <Checkbox
        className="rail-check"
        checked={keepBorder}
        onChange={(event) => useBench.setState({ keepBorder: event.target.checked })}
      >
        Keep borders
      </Checkbox>
      <label className="rail-field" htmlFor="relax-seconds">
        Relax for
        <InputNumber
          id="relax-seconds"
          size="small"
          {...seconds.range}
          suffix={seconds.unit}
          value={budget}
          placeholder="any"
          onChange={(value) => useBench.setState({ budget: value ?? undefined })}
        />
      </label>
    </>
  );
}

/** Whether what is chosen is flattened as it is, or as it looks smoothed. */
function SurfaceChoice() {
  const chosen = useBench((s) => s.chosen);
  const shells = useBench((s) => s.shells);
  const meant = shells.filter((_, i) => chosen.size === 0 || chosen.has(i));
  const smoothed = meant.length > 0 && meant.every((row) => row.smoothed);
  const set = (surface: 'cage' | 'smoothed') => {
    const { flat } = useBench.getState();
    const faces = [...(flat?.faceShell.keys() ?? [])].filter(
      (f) => chosen.size === 0 || chosen.has(flat?.faceShell[f] ?? -1),
    );
    void perform('set-surface', { faces, surface });
  };
  return (
    <Checkbox
      className="rail-check"
      checked={smoothed}
      onChange={(event) => set(event.target.checked ? 'smoothed' : 'cage')}
    >
      As it looks smoothed
    </Checkbox>
  );
}
