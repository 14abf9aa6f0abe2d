import { LIMIT_PRESETS, type LimitPreset, type Limits } from '@blunt-hem/core/document/limits';
import { Collapse, InputNumber, Select } from 'antd';
import { useState } from 'react';
import { perform } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';

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
  { key: 'texture', label: 'Texture', min: 16, max: 65_536, step: 1024, suffix: 'px' },
  { key: 'padding', label: 'Padding, at least', min: 0, max: 512, step: 1, suffix: 'px' },
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
              {FIELDS.map((field) => (
                <LimitField
                  key={`${field.key} ${limits[field.key]}`}
                  field={field}
                  value={limits[field.key]}
                  set={(value) => set({ ...limits, [field.key]: value })}
                />
              ))}
            </>
          ),
        },
      ]}
    />
  );
}

/** One limit, set once it is typed: every change is an act. */
function LimitField({
  field: { key, label, ...field },
  value,
  set,
}: {
  readonly field: Field;
  readonly value: number;
  readonly set: (value: number) => void;
}) {
  const [draft, setDraft] = useState<number | null>(value);
  const done = (): void => {
    if (draft !== null && draft !== value) set(draft);
  };
  return (
    <label className="rail-field" htmlFor={`limit-${key}`}>
      {label}
      <InputNumber
        id={`limit-${key}`}
        size="small"
        {...field}
        value={draft}
        onChange={setDraft}
        onBlur={done}
        onPressEnter={done}
      />
    </label>
  );
}

/** The preset that limits are; undefined for the artist's own. */
export const presetOf = (limits: Limits): LimitPreset | undefined =>
  (Object.keys(LIMIT_PRESETS) as LimitPreset[]).find((name) =>
    FIELDS.every(({ key }) => LIMIT_PRESETS[name][key] === limits[key]),
  );
