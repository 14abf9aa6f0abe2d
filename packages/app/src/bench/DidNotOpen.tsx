import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { exportProject, useRescue } from '../rack/projectFiles.ts';

interface DidNotOpenProps {
  readonly id: string;
  readonly code: string;
  readonly sentence: string;
}

/** Why a project did not open, and what can be done: of a damaged one, what is whole can be had. */
export function DidNotOpen({ id, code, sentence }: DidNotOpenProps) {
  const [said, setSaid] = useState<string>();
  const rescue = useRescue();
  const attempt = (work: () => Promise<unknown>) =>
    void work().catch((error: Error) => setSaid(error.message));
  return (
    <main className="bench-state">
      <h1>This project did not open</h1>
      <p role="alert">{sentence}</p>
      {code === 'damaged' && (
        <>
          <p>Nothing is deleted: the project stays on the Rack as it is.</p>
          <div className="bench-state-acts">
            <Button type="primary" onClick={() => attempt(() => rescue(id))}>
              Open what is whole
            </Button>
            <Button onClick={() => attempt(() => exportProject(id))}>Export what is whole</Button>
          </div>
        </>
      )}
      {said && <p role="status">{said}</p>}
      <Link to="/">Back to the Rack</Link>
    </main>
  );
}
