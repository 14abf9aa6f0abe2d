import { Button, Modal } from 'antd';
import { useEffect, useState } from 'react';
import { useBlocker } from 'react-router';
import { exportProject } from '../../rack/projectFiles.ts';
import { keepAsNew } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';

/** Asks before work that is in this tab alone is left: for the Rack, for another page, or by closing the tab. */
export function UnsavedGuard() {
  const unsaved = useBench((s) => s.unsaved);
  const id = useBench((s) => s.projectId);
  const [said, setSaid] = useState<string>();
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) => unsaved && currentLocation.pathname !== nextLocation.pathname,
  );
  useEffect(() => {
    if (!unsaved) return;
    // The browser asks in its own words.
    const ask = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [unsaved]);
  if (blocker.state !== 'blocked') return null;
  const attempt = (work: () => Promise<unknown>) =>
    void work().then(
      () => setSaid('The project file was handed to the browser.'),
      (error: Error) => setSaid(error.message),
    );
  return (
    <Modal
      scrollLock={false}
      open
      title="This project is in this tab alone"
      width={640}
      onCancel={() => blocker.reset()}
      footer={[
        <Button key="leave" danger onClick={() => blocker.proceed()}>
          Leave it behind
        </Button>,
        <Button key="export" onClick={() => id && attempt(() => exportProject(id))}>
          Export project file
        </Button>,
        <Button key="keep" onClick={() => void keepAsNew().then(() => blocker.reset())}>
          Keep it as a new project
        </Button>,
        <Button key="stay" type="primary" autoFocus onClick={() => blocker.reset()}>
          Stay here
        </Button>,
      ]}
    >
      <p>It could not be saved. Whoever leaves it loses it: export it first, or keep it as a new project.</p>
      {said && <p role="status">{said}</p>}
    </Modal>
  );
}
