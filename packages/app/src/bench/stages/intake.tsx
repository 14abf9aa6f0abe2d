import { plural } from '@blunt-hem/core/plural';
import { lazyPart } from '../../loading/lazyPart.tsx';
import { useBench } from '../../store/bench.ts';
import { Findings } from '../health/Findings.tsx';
import { PartsList } from '../parts/Parts.tsx';
import type { StageView } from './stage.ts';
import { UpAxis } from './UpAxis.tsx';

const HealthReportView = lazyPart(
  async () => (await import('../health/HealthReportView.tsx')).HealthReportView,
);

export const intake: StageView = {
  name: 'intake',
  label: 'Intake',
  tools: [],
  commands: [],
  Panel: () => (
    <>
      <PartsList />
      <UpAxis />
    </>
  ),
  Details: Findings,
  View: () => (useBench((s) => s.reportOpen) ? <HealthReportView /> : null),
  mark({ health }) {
    const ill = health?.findings.filter(({ severity }) => severity !== 'hint').length ?? 0;
    return ill === 0 ? '' : plural(ill, 'finding');
  },
};
