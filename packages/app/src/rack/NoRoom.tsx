import { Button, Modal } from 'antd';

interface NoRoomProps {
  readonly sentence: string;
  readonly onCancel: () => void;
  readonly onOpen: () => void;
}

/** Told before a model is opened that the browser cannot keep. */
export function NoRoom({ sentence, onCancel, onOpen }: NoRoomProps) {
  return (
    <Modal
      scrollLock={false}
      open
      title="There is no room to keep this"
      onCancel={onCancel}
      footer={[
        <Button key="open" onClick={onOpen}>
          Open without keeping it
        </Button>,
        <Button key="not" type="primary" onClick={onCancel}>
          Make room first
        </Button>,
      ]}
    >
      {sentence} Whatever you do to it can be exported, and is gone when its tab is closed.
    </Modal>
  );
}
