import { IconX } from '@tabler/icons-react';
import { Button } from 'antd';
import { useEffect } from 'react';
import { useBench } from '../../store/bench.ts';

/** What the artist should hear about the last act, and what could be done about it. */
export function NoticeBar() {
  const notice = useBench((s) => s.notice);
  const stage = useBench((s) => s.stage);
  // A note belongs to where it was said, and would lie over what comes next; an error stays until it is read.
  // biome-ignore lint/correctness/useExhaustiveDependencies: leaving the stage is what it is about
  useEffect(
    () => () => useBench.setState((s) => (s.notice?.tone === 'note' ? { notice: undefined } : {})),
    [stage],
  );
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
