import { UP_AXES } from '@blunt-hem/core/document/fields';
import { frontOf, upOf } from '@blunt-hem/core/mesh/stance';
import { plural } from '@blunt-hem/core/plural';
import { PROJECTIONS, type Projection } from '@blunt-hem/core/projections/projectFaces';
import type { AskedOf } from '@blunt-hem/core/questions/index';
import { IconCylinder } from '@tabler/icons-react';
import { Button, Checkbox, InputNumber, Segmented, Select } from 'antd';
import { Vector3 } from 'three';
import { perform } from '../../store/acts.ts';
import { type BenchStore, useBench } from '../../store/bench.ts';
import type { HandleMode, ProjectionFrame } from '../../store/projecting.ts';
import { selectedFaces } from '../../store/select.ts';
import { handle } from '../panes/rendererHandle.ts';
import { parameterOf } from '../parameterOf.ts';
import { RailSlider } from '../rail/RailSlider.tsx';
import type { Tool } from './tool.ts';

const ofSweep = parameterOf('project', 'sweep');

/** Faces laid flat as a plane, cylinder, sphere or box sees them; placed by a handle on the Model, seen before it is taken. */
export const project: Tool = {
  name: 'project',
  label: 'Project',
  help: 'Lay the selected faces, or all, flat as a plane, cylinder, sphere or box sees them; place it by its handle, Enter takes it',
  key: 'j',
  icon: IconCylinder,
  panes: ['model', 'board'],
  keys: {
    enter() {
      void take();
      return true;
    },
  },
  leaveHand: () => useBench.setState({ projectionPreview: undefined }),
  Settings,
};

/** What is asked for as it is set now. */
export function projectionAsked(s: BenchStore): AskedOf<'projection'> | undefined {
  const faces = selectedFaces();
  const all = faces.length > 0 ? faces : [...(s.flat?.faceShell.keys() ?? [])];
  if (all.length === 0) return undefined;
  const { projectionFrame: frame, projectionEach: each } = s;
  return {
    faces: all,
    kind: s.projectionKind,
    sweep: s.projectionSweep,
    size: s.projectionSize,
    each,
    caps: s.projectionCaps,
    // Each shell has a place of its own; only directions are shared.
    ...(frame && {
      toward: triple(frame.toward),
      up: triple(frame.up),
      ...(each === 'together' && { origin: triple(frame.origin) }),
    }),
  };
}

const triple = ([x, y, z]: readonly number[]): [number, number, number] => [x, y, z];

async function take(): Promise<void> {
  const asked = projectionAsked(useBench.getState());
  if (!asked) return;
  // What came of it is looked at without the handle.
  if (await perform('project', asked))
    useBench.setState({ tool: 'pick', projectionFrame: undefined, projectionPreview: undefined });
}

const KIND_LABELS: Readonly<Record<Projection, string>> = {
  plane: 'From a plane',
  cylinder: 'From a cylinder',
  sphere: 'From a sphere',
  box: 'From a box',
};
const EACH_LABELS = { together: 'All together', shells: 'Each shell', parts: 'Each part' } as const;
const MODES: readonly { readonly value: HandleMode; readonly label: string }[] = [
  { value: 'translate', label: 'Move' },
  { value: 'rotate', label: 'Turn' },
  { value: 'scale', label: 'Size' },
];
/** Ways for it to stand: fitted, along an axis of the model, or as the Model is looked at. */
const STANDS = {
  fit: 'As it fits',
  x: 'Along x',
  y: 'Along y',
  z: 'Along z',
  view: 'As it is seen',
} as const;

function Settings() {
  const kind = useBench((s) => s.projectionKind);
  const each = useBench((s) => s.projectionEach);
  const caps = useBench((s) => s.projectionCaps);
  const sweep = useBench((s) => s.projectionSweep);
  const mode = useBench((s) => s.handleMode);
  const preview = useBench((s) => s.projectionPreview);
  const isWrap = kind === 'cylinder' || kind === 'sphere';
  const faces = preview ? faceCount(preview.triangles.length) : 0;
  return (
    <div className="rail-settings">
      <Select<Projection>
        size="small"
        className="wide"
        aria-label="Projection"
        value={kind}
        options={PROJECTIONS.map((value) => ({ value, label: KIND_LABELS[value] }))}
        onChange={(value) => useBench.setState({ projectionKind: value, projectionFrame: undefined })}
      />
      <Select<keyof typeof STANDS>
        size="small"
        className="wide"
        aria-label="How it stands"
        placeholder="Stands as it was put"
        value={null as never}
        options={Object.entries(STANDS).map(([value, label]) => ({ value: value as never, label }))}
        onChange={stand}
      />
      <Segmented<HandleMode>
        size="small"
        block
        aria-label="What the handle does"
        value={mode}
        options={[...MODES]}
        onChange={(value) => useBench.setState({ handleMode: value })}
      />
      <Origin />
      {isWrap && (
        <>
          <label className="rail-field" htmlFor="projection-sweep">
            Sweep
            <InputNumber
              id="projection-sweep"
              size="small"
              {...ofSweep.range}
              suffix={ofSweep.unit}
              value={sweep}
              onChange={(value) => useBench.setState({ projectionSweep: value ?? 360 })}
            />
          </label>
          <RailSlider
            left="Seam"
            min={-180}
            max={180}
            step={5}
            value={seamAngle(preview?.frame)}
            label="Where the seam falls, degrees from the back"
            onChange={turnSeam}
          />
        </>
      )}
      <Select<BenchStore['projectionEach']>
        size="small"
        className="wide"
        aria-label="By one projection or several"
        value={each}
        options={Object.entries(EACH_LABELS).map(([value, label]) => ({ value: value as never, label }))}
        onChange={(value) => useBench.setState({ projectionEach: value })}
      />
      {kind !== 'box' && (caps === 'apart' || (preview?.collapsed ?? 0) > 0) && (
        <Checkbox
          className="rail-check"
          checked={caps === 'apart'}
          onChange={({ target }) => useBench.setState({ projectionCaps: target.checked ? 'apart' : 'along' })}
        >
          Caps from planes of their own
        </Checkbox>
      )}
      {preview && (
        <p className="rail-text" role="status">
          {troubles(preview) || 'Nothing collapses, and nothing is mirrored.'}
        </p>
      )}
      <Button size="small" type="primary" block disabled={!preview} onClick={() => void take()}>
        Project {plural(faces, 'face')}
      </Button>
    </div>
  );
}

/** Faces of so many triangles of the preview. */
function faceCount(triangles: number): number {
  const { projectionPreview, model } = useBench.getState();
  if (!projectionPreview || !model || triangles === 0) return 0;
  let count = 0;
  let last = -1;
  for (const t of projectionPreview.triangles) {
    const f = model.triangleFace[t];
    if (f !== last) count++;
    last = f;
  }
  return count;
}

function troubles({ collapsed, mirrored, outside }: NonNullable<BenchStore['projectionPreview']>): string {
  const told = (count: number, what: string) => (count > 0 ? [`${plural(count, 'face')} ${what}`] : []);
  return [
    ...told(collapsed, 'seen edge-on'),
    ...told(mirrored, 'would be mirrored'),
    ...told(outside, 'beyond the sweep'),
  ].join(', ');
}

/** Where its middle is, by numbers. */
function Origin() {
  const frame = useBench((s) => s.projectionFrame ?? s.projectionPreview?.frame);
  if (!frame) return null;
  const put = (k: number, value: number | null): void => {
    if (value === null) return;
    useBench.setState({
      projectionFrame: { ...frame, origin: frame.origin.map((x, i) => (i === k ? value : x)) },
    });
  };
  return (
    <div className="rail-triple">
      {['x', 'y', 'z'].map((axis, k) => (
        <InputNumber
          key={axis}
          size="small"
          controls={false}
          aria-label={`Middle, ${axis}`}
          value={Number(frame.origin[k].toPrecision(4))}
          onChange={(value) => put(k, value)}
        />
      ))}
    </div>
  );
}

const AXES = { x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] } as const;

/** Stands it along an axis, or so that it faces who looks at the Model. */
function stand(way: keyof typeof STANDS): void {
  const state = useBench.getState();
  const { projectionPreview, projectionKind } = state;
  if (way === 'fit') {
    useBench.setState({ projectionFrame: undefined, projectionSize: 1 });
    return;
  }
  const frame = projectionPreview?.frame;
  if (!frame) return;
  const upright = upOf(state);
  if (way === 'view') {
    const looked = lookedFrom();
    if (!looked) return;
    useBench.setState({ projectionFrame: { ...frame, ...looked } });
    return;
  }
  const axis = AXES[way];
  // A plane looks along it, a wrap goes round it.
  const isPlane = projectionKind === 'plane';
  const other = way === UP_AXES[state.upAxis] ? frontOf(state) : upright;
  useBench.setState({
    projectionFrame: {
      origin: frame.origin,
      toward: isPlane ? axis : other,
      up: isPlane ? other : axis,
    },
  });
}

/** Towards the viewer, and what is up on the screen, in the model's own axes. */
function lookedFrom(): Pick<ProjectionFrame, 'toward' | 'up'> | undefined {
  const { renderer } = handle;
  if (!renderer) return undefined;
  const back = renderer.model.standing.clone().invert();
  const along = (x: number, y: number, z: number) =>
    new Vector3(x, y, z).applyQuaternion(renderer.model.seen.quaternion).transformDirection(back).toArray();
  return { toward: along(0, 0, 1), up: along(0, 1, 0) };
}

/** Degrees by which the seam is turned from the back of the model. */
function seamAngle(frame: ProjectionFrame | undefined): number {
  if (!frame) return 0;
  const [zero, side] = seamAxes(frame);
  const toward = new Vector3(...triple(frame.toward));
  return Math.round((Math.atan2(toward.dot(side), toward.dot(zero)) * 180) / Math.PI / 5) * 5;
}

function turnSeam(degrees: number): void {
  const { projectionPreview } = useBench.getState();
  const frame = projectionPreview?.frame;
  if (!frame) return;
  const [zero, side] = seamAxes(frame);
  const angle = (degrees * Math.PI) / 180;
  const toward = zero.multiplyScalar(Math.cos(angle)).addScaledVector(side, Math.sin(angle)).toArray();
  useBench.setState({ projectionFrame: { ...frame, toward } });
}

/** Directions at right angles to the axis: the front of the model as nearly as can be, and to the right of it. */
function seamAxes({ up }: ProjectionFrame): [Vector3, Vector3] {
  const axis = new Vector3(...triple(up)).normalize();
  const front = new Vector3(...frontOf(useBench.getState()));
  if (Math.abs(front.dot(axis)) > 0.9) front.set(1, 0, 0);
  const side = new Vector3().crossVectors(axis, front).normalize();
  return [new Vector3().crossVectors(side, axis), side];
}
