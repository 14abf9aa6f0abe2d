import { Button, Modal } from 'antd';

/** A file that was read and has UVs. */
export interface Pending {
  readonly name: string;
  readonly faces: number;
  readonly uvSets: readonly string[];
}

interface KeepOrDiscardProps {
  readonly pending: Pending;
  readonly onCancel: () => void;
  readonly onChoose: (keepUvs: boolean) => void;
}

/** Asked at every opening: losing UVs by opening a file must not happen by accident. */
export function KeepOrDiscard({ pending, onCancel, onChoose }: KeepOrDiscardProps) {
  const { name, faces, uvSets } = pending;
  return (
    <Modal
      open
      title={`Open ${name}`}
      onCancel={onCancel}
      footer={[
        <Button key="not" onClick={onCancel}>
          Do not open
        </Button>,
        <Button key="discard" onClick={() => onChoose(false)}>
          Discard them
        </Button>,
        <Button key="keep" type="primary" autoFocus onClick={() => onChoose(true)}>
          Keep UVs
        </Button>,
      ]}
    >
      {faces === 1 ? 'One face' : `${faces.toLocaleString('en-GB')} faces`}, with{' '}
      {uvSets.length === 1 ? 'one UV set' : `${uvSets.length} UV sets`}: {uvSets.join(', ')}. Keep the UVs,
      with their breaks as seams, or start without any?
    </Modal>
  );
}
