import { LIMIT_PRESETS, type LimitPreset, type Limits } from '@blunt-hem/core/document/limits';
import { Collapse, Select } from 'antd';
import { perform } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { NumberField } from './NumberField.tsx';

const PRESET_LABELS: Readonly<Record<LimitPreset, string>> = {
  usual: 'As usual',
  clean: 'Clean',
  rough: 'Rough',
};

interface Field {
  readonly key: keyof Limits;
  readonly label: string;
  readonly min: number;
  readonly max: number;
  readonly step: number;
  readonly suffix?: string;
}

const FIELDS: readonly Field[] = [
  { key: 'stretch', label: 'Stretch L2, up to', min: 1, max: 100, step: 0.05 },
  { key: 'worst', label: 'In one place, up to', min: 1, max: 1000, step: 0.5, suffix: '×' },
  { key: 'area', label: 'Area on average, up to', min: 1, max: 100, step: 0.05, suffix: '×' },
  { key: 'angle', label: 'Angle on average, up to', min: 0, max: 180, step: 1, suffix: '°' },
  { key: 'density', label: 'Texture scale, up to', min: 1, max: 100, step: 0.05, suffix: '×' },
];

/** How much is put up with: what is judged, found and handed over goes by it. Kept with the project. */
export function LimitsPanel() {
  const limits = useBench((s) => s.limits);
  const preset = presetOf(limits);
  const set = (next: Limits): void => void perform('set-limits', { limits: next });
  return (
    <Collapse
      ghost
      size="small"
      className="cut-details"
      items={[
        {
          key: 'limits',
          label: `Limits: ${preset ? PRESET_LABELS[preset].toLowerCase() : 'your own'}`,
          children: (
            <>
              <Select
                size="small"
                className="wide"
                aria-label="Limits"
                placeholder="Your own"
                value={preset}
                options={(Object.keys(LIMIT_PRESETS) as LimitPreset[]).map((value) => ({
                  value,
                  label: PRESET_LABELS[value],
                }))}
                onChange={(value) => set(LIMIT_PRESETS[value])}
              />
              {FIELDS.map(({ key, ...field }) => (
                <NumberField
                  key={`${key} ${limits[key]}`}
                  id={`limit-${key}`}
                  {...field}
                  value={limits[key]}
                  set={(value) => set({ ...limits, [key]: value })}
                />
              ))}
            </>
          ),
        },
      ]}
    />
  );
}

/** The preset that limits are; undefined for the artist's own. */
export const presetOf = (limits: Limits): LimitPreset | undefined =>
  (Object.keys(LIMIT_PRESETS) as LimitPreset[]).find((name) =>
    FIELDS.every(({ key }) => LIMIT_PRESETS[name][key] === limits[key]),
  );
