import { IconMagnet, IconMagnetOff } from '@tabler/icons-react';
import { Button, Checkbox, Popover } from 'antd';
import { useBench } from '../../store/bench.ts';
import { SNAPS, snapsChosen } from '../snaps/index.ts';

/** What shells that are moved by hand take hold of. */
export function SnapChoice({ inShort }: { readonly inShort: boolean }) {
  const snaps = useBench((s) => s.snaps);
  const snapKinds = useBench((s) => s.snapKinds);
  return (
    <Popover
      trigger="click"
      placement="bottomRight"
      content={
        <div className="snap-choice">
          <Checkbox checked={snaps} onChange={({ target }) => useBench.setState({ snaps: target.checked })}>
            Snap (⇧U)
          </Checkbox>
          <Checkbox.Group
            value={[...snapsChosen({ snapKinds })]}
            disabled={!snaps}
            options={SNAPS.map(({ name, label }) => ({ value: name, label }))}
            onChange={(names) => useBench.setState({ snapKinds: new Set(names) })}
          />
        </div>
      }
    >
      <Button
        size="small"
        icon={snaps ? <IconMagnet size={15} /> : <IconMagnetOff size={15} />}
        aria-label="What takes hold"
        aria-pressed={snaps}
      >
        {!inShort && 'Snap'}
      </Button>
    </Popover>
  );
}
