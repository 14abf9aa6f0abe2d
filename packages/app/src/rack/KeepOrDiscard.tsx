import type { Stance } from '@blunt-hem/core/mesh/stance';
import { Button, Modal } from 'antd';
import { useState } from 'react';
import { Stances } from './Stances.tsx';

/** A file that was read and leaves something to be asked. */
export interface Pending {
  readonly name: string;
  readonly faces: number;
  readonly uvSets: readonly string[];
  /** Whether it looks as if z pointed up in it. */
  readonly mayLie: boolean;
  /** Some of its faces, to draw it small. */
  readonly sample: Float32Array;
  /** What the Bench should say of it. */
  readonly note?: string;
}

interface KeepOrDiscardProps {
  readonly pending: Pending;
  readonly onCancel: () => void;
  readonly onChoose: (keepUvs: boolean, stance: Stance) => void;
}

/**
 * Asked at every opening of a file with UVs, for losing them must not happen by accident; and where a file may lie on its back. How it stands is
 * asked in the same breath.
 */
export function KeepOrDiscard({ pending, onCancel, onChoose }: KeepOrDiscardProps) {
  const { name, faces, uvSets, mayLie, sample } = pending;
  const [stance, setStance] = useState<Stance>({ upAxis: mayLie ? 1 : 0, front: 0 });
  const hasUvs = uvSets.length > 0;
  return (
    <Modal
      scrollLock={false}
      open
      title={`Open ${name}`}
      onCancel={onCancel}
      footer={[
        <Button key="not" onClick={onCancel}>
          Do not open
        </Button>,
        ...(hasUvs
          ? [
              <Button key="discard" onClick={() => onChoose(false, stance)}>
                Discard them
              </Button>,
            ]
          : []),
        <Button key="keep" type="primary" autoFocus onClick={() => onChoose(true, stance)}>
          {hasUvs ? 'Keep UVs' : 'Open it so'}
        </Button>,
      ]}
    >
      {hasUvs && (
        <p>
          {faces === 1 ? 'One face' : `${faces.toLocaleString('en-GB')} faces`}, with{' '}
          {uvSets.length === 1 ? 'one UV set' : `${uvSets.length} UV sets`}: {uvSets.join(', ')}. Keep the
          UVs, with their breaks as seams, or start without any?
        </p>
      )}
      <Stances sample={sample} value={stance} onChange={setStance} />
    </Modal>
  );
}
