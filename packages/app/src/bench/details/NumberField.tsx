import { InputNumber } from 'antd';
import { useState } from 'react';

export interface NumberFieldProps {
  readonly id: string;
  readonly label: string;
  readonly value: number;
  readonly min: number;
  readonly max: number;
  readonly step: number;
  readonly suffix?: string;
  /** With what was typed, where it is another. */
  readonly set: (value: number) => void;
}

/** A number that is set once it is typed, for what is an act: give it a key with its value, so that it shows what is. */
export function NumberField({ id, label, value, set, ...field }: NumberFieldProps) {
  const [draft, setDraft] = useState<number | null>(value);
  const done = (): void => {
    if (draft !== null && draft !== value) set(draft);
  };
  return (
    <label className="rail-field" htmlFor={id}>
      {label}
      <InputNumber
        id={id}
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
