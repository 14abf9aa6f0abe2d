import { Slider } from 'antd';

/** A slider of the rail or the details, with a word at its left end and perhaps one at its right. */
export function RailSlider({
  left,
  right,
  label,
  title,
  ...range
}: {
  readonly left: string;
  readonly right?: string;
  /** What it sets, for those who do not see it. */
  readonly label: string;
  /** What it is, told while the pointer rests. */
  readonly title?: string;
  readonly min?: number;
  readonly max?: number;
  readonly step?: number;
  readonly value: number;
  readonly onChange: (value: number) => void;
  readonly onChangeComplete?: (value: number) => void;
}) {
  return (
    <div className="rail-slider" title={title}>
      <span>{left}</span>
      <Slider {...range} tooltip={{ open: false }} ariaLabelForHandle={label} />
      {right && <span>{right}</span>}
    </div>
  );
}
