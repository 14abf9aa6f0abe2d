import { plural } from '@blunt-hem/core/plural';
import { PROJECTIONS, type Projection } from '@blunt-hem/core/projections/projectFaces';
import { Button, Checkbox, InputNumber, Segmented, Select } from 'antd';
import { type BenchStore, useBench } from '../../../store/bench.ts';
import type { HandleMode } from '../../../store/projecting.ts';
import { parameterOf } from '../../parameterOf.ts';
import { RailSlider } from '../../rail/RailSlider.tsx';
import { STANDS, seamAngle, stand, turnSeam } from './placing.ts';
import { take } from './taking.ts';

const ofSweep = parameterOf('project', 'sweep');

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
/** From what, how it stands, and what it would come to. */
export function ProjectSettings() {
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
