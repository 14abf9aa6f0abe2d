import { UP_AXES } from '@blunt-hem/core/document/fields';
import { Button, Segmented } from 'antd';
import { perform } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';

/** Which axis of the file points up, and which way the model looks. */
export function UpAxis() {
  const upAxis = useBench((s) => s.upAxis);
  const front = useBench((s) => s.front);
  return (
    <>
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
      <Button
        size="small"
        block
        onClick={() => void perform('stand-up', { up: UP_AXES[upAxis], front: (front + 1) % 4 })}
      >
        Turn its front
      </Button>
    </>
  );
}
