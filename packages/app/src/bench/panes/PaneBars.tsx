import { TARGETS, type TargetId } from '@blunt-hem/core/select/targets/index';
import {
  IconAspectRatio,
  IconCube3dSphere,
  IconEye,
  IconEyeOff,
  IconFocusCentered,
  IconLayoutGrid,
  IconPinned,
  IconStackBack,
  IconTriangles,
} from '@tabler/icons-react';
import { Button, Dropdown, Segmented, Select, Slider, Tooltip } from 'antd';
import { hint, perform } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { BOARD_LAYERS, type BoardLayerName, boardLayerOf } from '../../store/boardLayer.ts';
import { overlaysOffered } from '../overlays/index.ts';
import { CheckerChoice, ImageChoice, SquareSize, Strength } from './CheckerControls.tsx';
import { frameSelection } from './framing.ts';
import { PaneBar } from './PaneBar.tsx';
import { handle } from './rendererHandle.ts';
import { SnapChoice } from './SnapChoice.tsx';

interface InShort {
  readonly inShort: boolean;
}

/** What a click picks, and whether it goes through. */
export function ModelBar() {
  return (
    <PaneBar
      title="Model"
      always={
        <>
          <Views />
          <Tooltip title="Frame the selection (F)">
            <Button
              size="small"
              icon={<IconFocusCentered size={15} />}
              aria-label="Frame the selection"
              onClick={() => frameSelection()}
            />
          </Tooltip>
        </>
      }
      controls={[
        { name: 'target', width: 244, show: () => <Targets /> },
        { name: 'through', width: 116, short: 24, show: (inShort) => <Through inShort={inShort} /> },
      ]}
    />
  );
}

function Targets() {
  const target = useBench((s) => s.target);
  return (
    <Segmented<TargetId>
      size="small"
      aria-label="What a click picks"
      value={target}
      options={TARGETS.map((value) => ({ value, label: value[0].toUpperCase() + value.slice(1) }))}
      onChange={(value) => useBench.setState({ target: value, hover: undefined })}
    />
  );
}

function Through({ inShort }: InShort) {
  const visibleOnly = useBench((s) => s.visibleOnly);
  const name = visibleOnly ? 'Visible only' : 'Through';
  return (
    <Tooltip title={visibleOnly ? 'A box takes only what can be seen' : 'A box goes through to the far side'}>
      <Button
        size="small"
        icon={visibleOnly ? <IconEye size={15} /> : <IconEyeOff size={15} />}
        aria-label={name}
        aria-pressed={visibleOnly}
        onClick={() => useBench.setState({ visibleOnly: !visibleOnly })}
      >
        {!inShort && name}
      </Button>
    </Tooltip>
  );
}

const VIEWS = [
  ['Front', [0, 0, 1]],
  ['Back', [0, 0, -1]],
  ['Right side', [1, 0, 0]],
  ['Left side', [-1, 0, 0]],
  ['Above', [0, 1, 0]],
  ['Below', [0, -1, 0]],
] as const;

/** The six directions to look from, and perspective on or off. */
function Views() {
  const parallel = useBench((s) => s.parallel);
  return (
    <Dropdown
      trigger={['click']}
      menu={{
        selectable: false,
        items: [
          ...VIEWS.map(([name, direction]) => ({
            key: name,
            label: name,
            onClick: () => handle.renderer?.model.lookFrom(direction),
          })),
          { type: 'divider' as const },
          {
            key: 'parallel',
            label: parallel ? 'With perspective' : 'Without perspective',
            onClick: () => useBench.setState({ parallel: !parallel }),
          },
        ],
      }}
    >
      <Button size="small" icon={<IconCube3dSphere size={15} />} aria-label="Look from" />
    </Dropdown>
  );
}

/** Overlay and checker, the same on both panes, and how the Board keeps itself. */
export function BoardBar() {
  return (
    <PaneBar
      title="Board"
      controls={[
        { name: 'overlay', width: 96, show: () => <Overlays /> },
        { name: 'checker', width: 168, short: 24, show: (inShort) => <CheckerChoice inShort={inShort} /> },
        { name: 'places', width: 138, short: 24, show: (inShort) => <Places inShort={inShort} /> },
        { name: 'snap', width: 76, short: 24, show: (inShort) => <SnapChoice inShort={inShort} /> },
        { name: 'layer', width: 92, short: 24, show: (inShort) => <LayerChoice inShort={inShort} /> },
        { name: 'notches', width: 96, short: 24, show: (inShort) => <NotchSwitch inShort={inShort} /> },
        { name: 'squares', width: 220, show: () => <SquareSize /> },
        { name: 'strength', width: 142, show: () => <Strength /> },
        { name: 'image', width: 120, show: () => <ImageChoice /> },
        { name: 'seams', width: 128, show: () => <SeamWeight /> },
      ]}
      always={
        <Tooltip title="Frame the tiles">
          <Button
            size="small"
            icon={<IconAspectRatio size={15} />}
            aria-label="Frame the tiles"
            onClick={() => handle.renderer?.board.frame()}
          />
        </Tooltip>
      }
    />
  );
}

/** What of the shells is seen on the Board and can be touched there. */
function LayerChoice({ inShort }: InShort) {
  const name = useBench((s) => s.boardLayer?.name ?? 'all');
  const choose = (next: BoardLayerName) => {
    const boardLayer = next === 'all' ? undefined : boardLayerOf(useBench.getState(), next);
    if (next !== 'all' && !boardLayer) hint('Pick the shells first by which it goes.');
    else useBench.setState({ boardLayer, hover: undefined });
  };
  return (
    <Dropdown
      trigger={['click']}
      menu={{
        selectable: true,
        selectedKeys: [name],
        items: (Object.keys(BOARD_LAYERS) as BoardLayerName[]).map((key) => ({
          key,
          label: BOARD_LAYERS[key],
          onClick: () => choose(key),
        })),
      }}
    >
      <Button
        size="small"
        icon={<IconStackBack size={15} />}
        aria-label="What the Board shows"
        aria-pressed={name !== 'all'}
      >
        {!inShort && (name === 'all' ? 'All shells' : BOARD_LAYERS[name])}
      </Button>
    </Dropdown>
  );
}

const PLAIN = 'plain';

function Overlays() {
  const overlay = useBench((s) => s.overlay);
  // Only patches come and go; one that is not there, such as that of the last model, is not shown either.
  useBench((s) => s.patches);
  const offered = overlaysOffered(useBench.getState());
  return (
    <Select<string>
      size="small"
      className="overlay-choice"
      aria-label="Overlay"
      value={offered.find(({ name }) => name === overlay)?.name ?? PLAIN}
      popupMatchSelectWidth={170}
      options={[
        { label: 'Plain', value: PLAIN },
        ...offered.map(({ label, title, name }) => ({ label, value: name, title })),
      ]}
      onChange={(value) => useBench.setState({ overlay: value === PLAIN ? undefined : value })}
    />
  );
}

/** Whether borders that meet are marked. */
function NotchSwitch({ inShort }: InShort) {
  const notches = useBench((s) => s.notches);
  return (
    <Tooltip title="Numbered notches show which border meets which">
      <Button
        size="small"
        icon={<IconTriangles size={15} />}
        aria-label="Notches"
        aria-pressed={notches}
        onClick={() => useBench.setState({ notches: !notches })}
      >
        {!inShort && 'Notches'}
      </Button>
    </Tooltip>
  );
}

function SeamWeight() {
  const weight = useBench((s) => s.seamWeight);
  return (
    <span className="pane-pair">
      Seams
      <Slider
        className="pane-slider"
        min={0.5}
        max={3}
        step={0.25}
        value={weight}
        tooltip={{ formatter: (value) => `${value} × as heavy` }}
        ariaLabelForHandle="Weight of seams"
        onChange={(value) => useBench.setState({ seamWeight: value })}
      />
    </span>
  );
}

/** Whether the Board lays shells out afresh after every act, or they keep their places. */
function Places({ inShort }: InShort) {
  const placed = useBench((s) => s.placed);
  const name = placed ? 'Places kept' : 'Laid out afresh';
  return (
    <Tooltip
      title={
        placed
          ? 'Shells keep their places; one that no longer fits waits beside the tiles'
          : 'After every act the Board lays all shells out afresh, until one is moved or packed'
      }
    >
      <Button
        size="small"
        icon={placed ? <IconPinned size={15} /> : <IconLayoutGrid size={15} />}
        aria-label={name}
        aria-pressed={placed}
        onClick={() => void perform('keep-places', { keep: !placed })}
      >
        {!inShort && name}
      </Button>
    </Tooltip>
  );
}
