import {
  IconArrowAutofitHeight,
  IconClick,
  IconCut,
  IconFlipHorizontal,
  IconLayoutBoard,
  IconMap,
  IconMaximize,
  IconNeedleThread,
  IconRipple,
  IconRotate2,
  IconRotateClockwise2,
  IconScissors,
  IconSelect,
  IconStretching,
} from '@tabler/icons-react';
import { Button, InputNumber, Switch } from 'antd';
import { type ReactNode, useState } from 'react';
import { cut, openPieces, pack, relax, sew, transformAboutMiddle, unfold } from '../../store/actions.ts';
import { STAGES, type Stage, useBench } from '../../store/benchStore.ts';
import { PartsList } from '../parts/Parts.tsx';

const NAMES: Record<Stage, string> = {
  intake: 'Intake',
  cut: 'Cut',
  unfold: 'Unfold',
  inspect: 'Inspect',
  arrange: 'Arrange',
  deliver: 'Deliver',
};

const TOOLS: Record<Stage, () => ReactNode> = {
  intake: IntakeTools,
  cut: CutTools,
  unfold: UnfoldTools,
  inspect: InspectTools,
  arrange: ArrangeTools,
  deliver: DeliverTools,
};

/** The six stages, a guide and not a gate: the open one shows its tools. */
export function Rail() {
  const stage = useBench((s) => s.stage);
  return (
    <nav className="rail" aria-label="Stages">
      {STAGES.map((name, i) => {
        const Tools = TOOLS[name];
        return (
          <div key={name} className="rail-stage" data-open={name === stage}>
            <button
              type="button"
              className="rail-name"
              aria-expanded={name === stage}
              onClick={() => useBench.setState({ stage: name })}
            >
              <span className="rail-number">{i + 1}</span>
              {NAMES[name]}
              <Mark stage={name} />
            </button>
            {name === stage && (
              <div className="rail-tools">
                <Tools />
              </div>
            )}
          </div>
        );
      })}
    </nav>
  );
}

/** A dot where a stage has something to say. */
function Mark({ stage }: { readonly stage: Stage }) {
  const shells = useBench((s) => s.state?.shells);
  const overlaps = useBench((s) => s.overlaps.faces.length / 2);
  const ill = useBench((s) => s.health?.findings.filter((row) => row.severity !== 'hint').length ?? 0);
  const count = (test: (row: NonNullable<typeof shells>[number]) => boolean) =>
    shells?.filter(test).length ?? 0;
  const text = {
    intake: ill > 0 ? `${ill} ${ill === 1 ? 'finding' : 'findings'}` : '',
    cut:
      count((row) => !row.verdict.canUnfold) > 0
        ? `${count((row) => !row.verdict.canUnfold)} cannot lie flat`
        : '',
    unfold:
      count((row) => row.stale && row.unfolded) > 0
        ? `${count((row) => row.stale && row.unfolded)} changed since`
        : '',
    inspect: overlaps > 0 || count((row) => row.flipped > 0) > 0 ? 'Findings' : '',
    arrange: '',
    deliver: '',
  }[stage];
  return text ? <span className="rail-mark">{text}</span> : null;
}

interface ToolProps {
  readonly icon: ReactNode;
  readonly label: string;
  readonly hint?: string;
  readonly pressed?: boolean;
  readonly main?: boolean;
  readonly onClick: () => void;
}

function Tool({ icon, label, hint, pressed, main, onClick }: ToolProps) {
  return (
    <Button
      block
      className="tool"
      type={main ? 'primary' : 'default'}
      icon={icon}
      aria-pressed={pressed}
      data-pressed={pressed}
      onClick={onClick}
    >
      <span className="tool-label">{label}</span>
      {hint && <kbd aria-hidden>{hint}</kbd>}
    </Button>
  );
}

function IntakeTools() {
  return <PartsList />;
}

function PickTools() {
  const tool = useBench((s) => s.tool);
  return (
    <>
      <Tool
        icon={<IconClick size={16} />}
        label="Pick"
        hint="Q"
        pressed={tool === 'pick'}
        onClick={() => useBench.setState({ tool: 'pick' })}
      />
      <Tool
        icon={<IconSelect size={16} />}
        label="Pick with a box"
        hint="Z"
        pressed={tool === 'box'}
        onClick={() => useBench.setState({ tool: 'box' })}
      />
    </>
  );
}

function CutTools() {
  const count = useBench((s) => s.edges.size);
  const edges = count === 0 ? 'edges' : count === 1 ? '1 edge' : `${count} edges`;
  return (
    <>
      <PickTools />
      <Tool
        main
        icon={<IconScissors size={16} />}
        label={`Cut ${edges}`}
        hint="A"
        onClick={() => void cut()}
      />
      <Tool
        icon={<IconNeedleThread size={16} />}
        label={`Sew ${edges}`}
        hint="⇧A"
        onClick={() => void sew()}
      />
      <Tool icon={<IconCut size={16} />} label="Open closed pieces" onClick={() => void openPieces()} />
    </>
  );
}

const ofChosen = (count: number): string =>
  count === 0 ? 'all' : count === 1 ? '1 shell' : `${count} shells`;

function UnfoldTools() {
  const count = useBench((s) => s.shells.size);
  return (
    <>
      <Tool
        main
        icon={<IconMap size={16} />}
        label={`Unfold ${ofChosen(count)}`}
        hint="S"
        onClick={() => void unfold()}
      />
      <Tool
        icon={<IconRipple size={16} />}
        label={`Relax ${ofChosen(count)}`}
        hint="D"
        onClick={() => void relax()}
      />
      <p className="rail-text">
        Unfolding keeps angles. Relaxing evens out area, gives up a little angle, and never flips a face.
      </p>
    </>
  );
}

function InspectTools() {
  return (
    <>
      <Tool
        icon={<IconStretching size={16} />}
        label="Area stretch"
        hint="B"
        onClick={() => useBench.setState({ overlay: 'area' })}
      />
      <Tool
        icon={<IconRotate2 size={16} />}
        label="Angle stretch"
        hint="B"
        onClick={() => useBench.setState({ overlay: 'angle' })}
      />
      <Tool
        icon={<IconLayoutBoard size={16} />}
        label="Gingham"
        hint="V"
        onClick={() => useBench.setState((s) => ({ checker: !s.checker }))}
      />
    </>
  );
}

function ArrangeTools() {
  const [size, setSize] = useState(2048);
  const [padding, setPadding] = useState(8);
  const [turning, setTurning] = useState(true);
  const oneStep = Math.PI / 36;
  return (
    <>
      <Tool
        main
        icon={<IconLayoutBoard size={16} />}
        label="Pack the tile"
        onClick={() => void pack({ size, padding, turning: turning ? 'quarter' : 'none' })}
      />
      <label className="rail-field" htmlFor="pack-size">
        Texture, px
        <InputNumber
          id="pack-size"
          size="small"
          min={16}
          max={16384}
          step={1024}
          value={size}
          onChange={(value) => setSize(value ?? 2048)}
        />
      </label>
      <label className="rail-field" htmlFor="pack-padding">
        Padding, px
        <InputNumber
          id="pack-padding"
          size="small"
          min={0}
          max={512}
          value={padding}
          onChange={(value) => setPadding(value ?? 8)}
        />
      </label>
      <div className="rail-field">
        Quarter turns
        <Switch size="small" checked={turning} onChange={setTurning} aria-label="Quarter turns" />
      </div>
      <hr />
      <Tool
        icon={<IconRotateClockwise2 size={16} />}
        label="Turn −90°"
        onClick={() => void transformAboutMiddle(0, -1, 1, 0)}
      />
      <Tool
        icon={<IconRotate2 size={16} />}
        label="Turn +90°"
        onClick={() => void transformAboutMiddle(0, 1, -1, 0)}
      />
      <Tool
        icon={<IconRotate2 size={16} />}
        label="Turn +5°"
        onClick={() =>
          void transformAboutMiddle(
            Math.cos(oneStep),
            Math.sin(oneStep),
            -Math.sin(oneStep),
            Math.cos(oneStep),
          )
        }
      />
      <Tool
        icon={<IconMaximize size={16} />}
        label="Larger by a tenth"
        onClick={() => void transformAboutMiddle(1.1, 0, 0, 1.1)}
      />
      <Tool
        icon={<IconArrowAutofitHeight size={16} />}
        label="Smaller by a tenth"
        onClick={() => void transformAboutMiddle(1 / 1.1, 0, 0, 1 / 1.1)}
      />
      <Tool
        icon={<IconFlipHorizontal size={16} />}
        label="Mirror"
        onClick={() => void transformAboutMiddle(-1, 0, 0, 1)}
      />
    </>
  );
}

function DeliverTools() {
  return <p className="rail-text">The model with its UVs, and the layout as a picture to paint over.</p>;
}
