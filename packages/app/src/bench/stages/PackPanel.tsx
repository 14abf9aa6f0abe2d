import { IconLayoutBoard } from '@tabler/icons-react';
import { Button, InputNumber, Switch } from 'antd';
import { useState } from 'react';
import { perform } from '../../store/acts.ts';
import { handle } from '../panes/rendererHandle.ts';

/** Packing with its settings. */
export function PackPanel() {
  const [size, setSize] = useState(2048);
  const [padding, setPadding] = useState(8);
  const [turning, setTurning] = useState(true);
  const pack = async (): Promise<void> => {
    const done = await perform('pack', { size, padding, turning: turning ? 'quarter' : 'none' });
    if (done?.changed) handle.renderer?.frameBoard();
  };
  return (
    <>
      <hr />
      <Button
        block
        className="tool"
        type="primary"
        icon={<IconLayoutBoard size={16} />}
        onClick={() => void pack()}
      >
        <span className="tool-label">Pack the tile</span>
      </Button>
      <label className="rail-field" htmlFor="pack-size">
        Texture, px
        <InputNumber
          id="pack-size"
          size="small"
          min={16}
          max={16384}
          step={1024}
          value={size}
          onChange={(value) => setSize(value ?? 2048)}
        />
      </label>
      <label className="rail-field" htmlFor="pack-padding">
        Padding, px
        <InputNumber
          id="pack-padding"
          size="small"
          min={0}
          max={512}
          value={padding}
          onChange={(value) => setPadding(value ?? 8)}
        />
      </label>
      <div className="rail-field">
        Quarter turns
        <Switch size="small" checked={turning} onChange={setTurning} aria-label="Quarter turns" />
      </div>
    </>
  );
}
