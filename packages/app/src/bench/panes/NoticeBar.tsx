import { IconX } from '@tabler/icons-react';
import { Button } from 'antd';
import { useBench } from '../../store/benchStore.ts';

/** What the artist should hear about the last act, and what could be done about it. */
export function NoticeBar() {
  const notice = useBench((s) => s.notice);
  if (!notice) return null;
  const close = () => useBench.setState({ notice: undefined });
  return (
    <div className="notice" data-tone={notice.tone} role={notice.tone === 'error' ? 'alert' : 'status'}>
      <span>{notice.text}</span>
      {notice.offer && (
        <Button
          size="small"
          type="primary"
          onClick={() => {
            notice.offer?.act();
            close();
          }}
        >
          {notice.offer.label}
        </Button>
      )}
      <Button size="small" type="text" icon={<IconX size={15} />} aria-label="Close" onClick={close} />
    </div>
  );
}
