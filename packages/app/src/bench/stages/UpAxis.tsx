import { UP_AXES } from '@blunt-hem/core/document/fields';
import { Segmented } from 'antd';
import { perform } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';

/** Which axis of the file points up. */
export function UpAxis() {
  const upAxis = useBench((s) => s.upAxis);
  return (
    <div className="rail-field">
      Up in the file
      <Segmented
        size="small"
        aria-label="Which axis points up"
        value={UP_AXES[upAxis]}
        options={[...UP_AXES]}
        onChange={(up) => void perform('stand-up', { up })}
      />
    </div>
  );
}
