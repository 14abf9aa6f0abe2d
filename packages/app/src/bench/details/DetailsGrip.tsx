import { useDrag } from '@use-gesture/react';
import { useBench } from '../../store/bench.ts';

/** How narrow and how wide the details may be, pixels; a key moves them by a step. */
const [LEAST, MOST, STEP] = [260, 720, 20];

/** The left border of the details, by which they are drawn wider. */
export function DetailsGrip() {
  const width = useBench((s) => s.detailsWidth);
  const set = (wanted: number): void =>
    useBench.setState({ detailsWidth: Math.round(Math.max(LEAST, Math.min(MOST, wanted))) });
  const current = (): number => document.querySelector('.details')?.clientWidth ?? LEAST;
  const drag = useDrag(({ xy: [x] }) => set(window.innerWidth - x), { pointer: { keys: false } });
  return (
    // biome-ignore lint/a11y/useSemanticElements: a rule that is moved has no element of its own
    <div
      {...drag()}
      className="details-grip"
      role="separator"
      aria-orientation="vertical"
      aria-label="Width of the details"
      aria-valuenow={width ?? current()}
      aria-valuemin={LEAST}
      aria-valuemax={MOST}
      tabIndex={0}
      onKeyDown={({ key }) => {
        if (key === 'ArrowLeft') set(current() + STEP);
        if (key === 'ArrowRight') set(current() - STEP);
      }}
      onDoubleClick={() => useBench.setState({ detailsWidth: undefined })}
    />
  );
}
