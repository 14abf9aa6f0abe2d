import { Button, InputNumber, Select } from 'antd';
import type { ScaleAgainst } from '../../storage/looks.ts';
import { perform } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { chosenOrAll } from '../../store/select.ts';
import { usualScale } from '../overlays/against.ts';

const CHOICES: { readonly value: ScaleAgainst; readonly label: string }[] = [
  { value: 'shell', label: 'Each shell by itself' },
  { value: 'others', label: 'What most of it has' },
  { value: 'chosen', label: 'A chosen texture scale' },
];

/** What the area of faces and the scale of shells are measured against. */
export function MeasuredAgainst() {
  const against = useBench((s) => s.scaleAgainst);
  const scale = useBench((s) => s.chosenScale);
  const usual = useBench((s) => usualScale(s));
  return (
    <div className="measured-against">
      <Select<ScaleAgainst>
        size="small"
        aria-label="Area is measured against"
        value={against}
        options={CHOICES}
        onChange={(scaleAgainst) =>
          useBench.setState({
            scaleAgainst,
            // Begun with what is there, so that a number can be seen for what it is.
            ...(scaleAgainst === 'chosen' && usual && { chosenScale: Number(usual.toPrecision(3)) }),
          })
        }
      />
      {against === 'chosen' && (
        <>
          <InputNumber
            size="small"
            aria-label="Texels to a unit of the model"
            suffix="px a unit"
            min={1e-6}
            max={1e9}
            value={scale}
            onChange={(value) => value && useBench.setState({ chosenScale: value })}
          />
          <Button
            size="small"
            onClick={() => void perform('even-density', { shells: chosenOrAll(), density: scale })}
          >
            Scale the shells to it
          </Button>
        </>
      )}
    </div>
  );
}
