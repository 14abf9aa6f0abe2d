import { TARGETS, type Target } from '@blunt-hem/core/select/target';
import {
  IconAspectRatio,
  IconCube3dSphere,
  IconEye,
  IconEyeOff,
  IconFocusCentered,
} from '@tabler/icons-react';
import { Button, Dropdown, Segmented, Slider, Switch, Tooltip } from 'antd';
import { useBench } from '../../store/bench.ts';
import { OVERLAYS } from '../overlays/index.ts';
import { frameSelection } from './framing.ts';
import { handle } from './rendererHandle.ts';

/** What a click picks, and whether it goes through. */
export function ModelBar() {
  const target = useBench((s) => s.target);
  const visibleOnly = useBench((s) => s.visibleOnly);
  return (
    <div className="pane-bar">
      <h2>Model</h2>
      <Segmented<Target>
        size="small"
        aria-label="What a click picks"
        value={target}
        options={TARGETS.map((value) => ({ value, label: value[0].toUpperCase() + value.slice(1) }))}
        onChange={(value) => useBench.setState({ target: value })}
      />
      <Tooltip
        title={visibleOnly ? 'A box takes only what can be seen' : 'A box goes through to the far side'}
      >
        <Button
          size="small"
          icon={visibleOnly ? <IconEye size={15} /> : <IconEyeOff size={15} />}
          aria-pressed={visibleOnly}
          onClick={() => useBench.setState({ visibleOnly: !visibleOnly })}
        >
          {visibleOnly ? 'Visible only' : 'Through'}
        </Button>
      </Tooltip>
      <span className="pane-gap" />
      <Views />
      <Tooltip title="Frame the selection (F)">
        <Button
          size="small"
          icon={<IconFocusCentered size={15} />}
          aria-label="Frame the selection"
          onClick={frameSelection}
        />
      </Tooltip>
    </div>
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
            onClick: () => handle.renderer?.lookFrom(direction),
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

/** Overlay and checker, the same on both panes. */
export function BoardBar() {
  const overlay = useBench((s) => s.overlay);
  const checker = useBench((s) => s.checker);
  const repeats = useBench((s) => s.repeats);
  return (
    <div className="pane-bar">
      <h2>Board</h2>
      <Segmented<string>
        size="small"
        aria-label="Overlay"
        value={overlay ?? ''}
        options={[
          { label: 'Plain', value: '' },
          ...OVERLAYS.map(({ label, name }) => ({ label, value: name })),
        ]}
        onChange={(value) => useBench.setState({ overlay: value || undefined })}
      />
      <span className="pane-pair">
        <Switch
          size="small"
          aria-label="Gingham checker"
          checked={checker}
          onChange={(value) => useBench.setState({ checker: value })}
        />
        Gingham
      </span>
      <Slider
        className="pane-slider"
        min={4}
        max={96}
        value={repeats}
        tooltip={{ formatter: (value) => `${value} repeats` }}
        ariaLabelForHandle="Repeats of the checker"
        onChange={(value) => useBench.setState({ repeats: value })}
      />
      <span className="pane-gap" />
      <Tooltip title="Frame the tile">
        <Button
          size="small"
          icon={<IconAspectRatio size={15} />}
          aria-label="Frame the tile"
          onClick={() => handle.renderer?.frameBoard()}
        />
      </Tooltip>
    </div>
  );
}
