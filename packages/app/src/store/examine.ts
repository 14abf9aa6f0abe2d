import { reporting } from '../worker/reporting.ts';
import { notify } from './acts.ts';
import { useBench } from './bench.ts';
import { bench } from './worker.ts';

let examinations = 0;

/** Has the model examined as it is now; a newer call takes over. */
export async function examine(): Promise<void> {
  const { model, tolerance } = useBench.getState();
  const mine = ++examinations;
  const isThis = () => mine === examinations && useBench.getState().model === model;
  useBench.setState({ examining: 0 });
  const report = (fraction: number) => {
    if (isThis()) useBench.setState({ examining: fraction });
  };
  const health = await reporting(report, (report) => bench.examine(tolerance, report));
  if (!isThis()) return;
  useBench.setState({ health, examining: undefined });
  const { stage, undoable } = useBench.getState();
  const ill = health?.findings.filter(({ severity }) => severity === 'spoils').length ?? 0;
  // Said once, before the first act: later the mark at Intake is enough.
  if (ill === 0 || stage === 'intake' || undoable.length > 0) return;
  notify({
    tone: 'note',
    text: `The health check found ${ill === 1 ? 'one thing that spoils' : `${ill} things that spoil`} the UVs.`,
    offer: {
      label: 'Look at it first',
      act: () => useBench.setState({ stage: 'intake', notice: undefined }),
    },
  });
}
