import { Button, Modal, Radio } from 'antd';
import { useState } from 'react';

/** A file that was read and has UVs. */
export interface Pending {
  readonly name: string;
  readonly faces: number;
  readonly uvSets: readonly string[];
  /** Whether it looks as if z pointed up in it. */
  readonly mayLie: boolean;
  /** What the Bench should say of it. */
  readonly note?: string;
}

interface KeepOrDiscardProps {
  readonly pending: Pending;
  readonly onCancel: () => void;
  readonly onChoose: (keepUvs: boolean, upAxis: number) => void;
}

/** Asked at every opening: losing UVs by opening a file must not happen by accident. */
export function KeepOrDiscard({ pending, onCancel, onChoose }: KeepOrDiscardProps) {
  const { name, faces, uvSets, mayLie } = pending;
  const [upAxis, setUpAxis] = useState(mayLie ? 1 : 0);
  return (
    <Modal
      open
      title={`Open ${name}`}
      onCancel={onCancel}
      footer={[
        <Button key="not" onClick={onCancel}>
          Do not open
        </Button>,
        <Button key="discard" onClick={() => onChoose(false, upAxis)}>
          Discard them
        </Button>,
        <Button key="keep" type="primary" autoFocus onClick={() => onChoose(true, upAxis)}>
          Keep UVs
        </Button>,
      ]}
    >
      <p>
        {faces === 1 ? 'One face' : `${faces.toLocaleString('en-GB')} faces`}, with{' '}
        {uvSets.length === 1 ? 'one UV set' : `${uvSets.length} UV sets`}: {uvSets.join(', ')}. Keep the UVs,
        with their breaks as seams, or start without any?
      </p>
      <p>
        Up in this file is{' '}
        <Radio.Group
          size="small"
          aria-label="Which axis points up"
          value={upAxis}
          options={[
            { value: 0, label: 'y' },
            { value: 1, label: 'z' },
          ]}
          onChange={({ target }) => setUpAxis(target.value)}
        />
      </p>
    </Modal>
  );
}
