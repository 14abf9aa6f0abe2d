import { IconX } from '@tabler/icons-react';
import { Button } from 'antd';
import { useEffect } from 'react';
import { useBench } from '../../store/bench.ts';

/** A note stays as long as it takes to read it, milliseconds: at least, and for every letter. */
const [AT_LEAST, A_LETTER] = [7000, 70];

/** What the artist should hear about the last act, and what could be done about it: over the lower rim of the Board. */
export function NoticeBar() {
  const notice = useBench((s) => s.notice);
  useEffect(() => {
    if (notice?.tone !== 'note' || notice.offer) return;
    const timer = setTimeout(
      () => useBench.setState((s) => (s.notice === notice ? { notice: undefined } : {})),
      AT_LEAST + A_LETTER * notice.text.length,
    );
    return () => clearTimeout(timer);
  }, [notice]);
  if (!notice) return null;
  const close = () => useBench.setState({ notice: undefined });
  return (
    <div className="notice" data-tone={notice.tone} role={notice.tone === 'error' ? 'alert' : 'status'}>
      <Button size="small" type="text" icon={<IconX size={15} />} aria-label="Close" onClick={close} />
      <p>{notice.text}</p>
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
    </div>
  );
}
