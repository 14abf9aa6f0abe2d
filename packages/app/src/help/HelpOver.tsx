import { IconX } from '@tabler/icons-react';
import { Button } from 'antd';
import { type KeyboardEvent, useLayoutEffect, useRef } from 'react';
import { useBench } from '../store/bench.ts';
import { HelpContent } from './HelpContent.tsx';

/** Over the Bench none of its keys work, but for the one that closes Help again. */
const keepFromBench = (event: KeyboardEvent): void => {
  if (event.key !== '?' && event.key !== 'Shift') event.stopPropagation();
};

/** Help over the Bench, which stays as it is under it. */
export function HelpOver() {
  const dialog = useRef<HTMLDialogElement>(null);
  const close = () => useBench.setState({ helpOpen: false });
  // The state leads and the dialog follows: the browser tells of a closed dialog late, and a key
  // pressed before that would take Help for open.
  useLayoutEffect(() => {
    const shown = dialog.current;
    shown?.showModal();
    return () => shown?.close();
  }, []);
  return (
    <dialog
      ref={dialog}
      className="help-over"
      aria-label="Help"
      onCancel={(event) => {
        event.preventDefault();
        close();
      }}
      onClose={() => dialog.current && close()}
      onKeyDown={keepFromBench}
      onKeyUp={keepFromBench}
    >
      <header>
        <h1>How Blunt Hem is held</h1>
        <Button type="text" icon={<IconX size={17} />} aria-label="Close Help" onClick={close} />
      </header>
      <HelpContent />
    </dialog>
  );
}
