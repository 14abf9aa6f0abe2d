import { plural } from '@blunt-hem/core/plural';
import { RULES } from '@blunt-hem/core/seams/fromRules';
import type { SelectorsOf } from '@blunt-hem/core/selectors/index';
import { Button, Select, Slider } from 'antd';
import { useEffect, useState } from 'react';
import { useBench } from '../../store/bench.ts';
import { select } from '../../store/select.ts';
import { ask } from '../../store/worker.ts';
import { isUncut } from '../commands/seams.ts';

/** Rules of the core, and the plane in which a model is mirrored. */
const CHOICES = [...RULES, 'middle'] as const;
type Choice = (typeof CHOICES)[number];
const LABELS: Readonly<Record<Choice, string>> = {
  crease: 'Where the surface turns by',
  patch: 'Round patches',
  material: 'Between materials',
  smoothing: 'Between smoothing groups',
  part: 'Between parts',
  uv: 'Where UVs of the file break',
  middle: 'Along the mirror plane',
};
/** How long the slider must rest, milliseconds. */
const REST = 120;

const selectorOf = (choice: Choice, angle: number): SelectorsOf['edges'] =>
  choice === 'middle'
    ? { middle: 'found' }
    : choice === 'crease'
      ? { rule: choice, angle }
      : { rule: choice };

/** Seams that follow from a rule, counted and drawn while it is being set. */
export function RulesPanel() {
  const [rule, setRule] = useState<Choice>('crease');
  const [angle, setAngle] = useState(60);
  const [found, setFound] = useState<readonly number[]>();
  const seams = useBench((s) => s.flat?.seams);
  const patches = useBench((s) => s.patches);
  const model = useBench((s) => s.model);
  // biome-ignore lint/correctness/useExhaustiveDependencies: other seams and patches leave other edges
  useEffect(() => {
    setFound(undefined);
    let gone = false;
    const timer = setTimeout(async () => {
      const all = await ask('chosen', { of: 'edges', by: selectorOf(rule, angle) }).catch(() => undefined);
      if (gone || !all) return;
      const edges = all.filter(isUncut(useBench.getState()));
      setFound(edges);
      useBench.setState({ offered: edges });
    }, REST);
    return () => {
      gone = true;
      clearTimeout(timer);
      useBench.setState({ offered: undefined });
    };
  }, [rule, angle, seams, model, patches]);
  return (
    <>
      <Select
        size="small"
        className="wide"
        aria-label="Rule"
        value={rule}
        options={CHOICES.map((value) => ({ value, label: LABELS[value] }))}
        onChange={setRule}
      />
      {rule === 'crease' && (
        <div className="rail-slider">
          <span>{angle}°</span>
          <Slider
            min={10}
            max={120}
            value={angle}
            tooltip={{ open: false }}
            onChange={setAngle}
            ariaLabelForHandle="Angle, degrees"
          />
          <span>or more</span>
        </div>
      )}
      <Button
        size="small"
        block
        disabled={!found || found.length === 0}
        onClick={() => {
          useBench.setState({ target: 'edges', offered: undefined });
          select('edges', found ?? [], 'only', selectorOf(rule, angle));
        }}
      >
        {!found
          ? 'Being counted …'
          : found.length === 0
            ? 'No edge that is not cut already'
            : `Select ${plural(found.length, 'edge')}`}
      </Button>
    </>
  );
}
