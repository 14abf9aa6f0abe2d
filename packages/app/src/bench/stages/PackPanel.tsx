import { IconLayoutBoard } from '@tabler/icons-react';
import { Button, Switch } from 'antd';
import { useState } from 'react';
import { perform } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { handle } from '../panes/rendererHandle.ts';

/** Packing with its settings. */
export function PackPanel() {
  const count = useBench((s) => s.tiles.length);
  const [turning, setTurning] = useState(true);
  const pack = async (): Promise<void> => {
    const done = await perform('pack', { turning: turning ? 'quarter' : 'none' });
    if (done?.changed) handle.renderer?.board.frame();
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
        <span className="tool-label">{count === 1 ? 'Pack the tile' : `Pack the ${count} tiles`}</span>
      </Button>
      <div className="rail-field">
        Quarter turns
        <Switch size="small" checked={turning} onChange={setTurning} aria-label="Quarter turns" />
      </div>
    </>
  );
}
