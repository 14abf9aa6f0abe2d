import * as Comlink from 'comlink';
import { useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import { DeliverView } from '../deliver/DeliverView.tsx';
import { receive, resetBench, useBench } from '../store/benchStore.ts';
import { database } from '../store/database.ts';
import { bench, onWorkerDeath, unwrap } from '../store/worker.ts';
import type { BenchEvent } from '../worker/protocol.ts';
import './bench.css';
import { Details } from './details/Details.tsx';
import { Header } from './header/Header.tsx';
import { HealthReportView } from './health/HealthReportView.tsx';
import { useHealth } from './health/useHealth.ts';
import { moving } from './panes/movingPicture.ts';
import { Panes } from './panes/Panes.tsx';
import { Rail } from './rail/Rail.tsx';
import { Strip } from './strip/Strip.tsx';
import { useBenchKeys } from './useBenchKeys.ts';
import { ViewKeeper } from './ViewKeeper.tsx';

onWorkerDeath(() =>
  useBench.setState({
    busy: undefined,
    notice: {
      tone: 'error',
      text: 'The part of Blunt Hem that keeps your document broke down. Everything up to the last act is saved: open the project again.',
      offer: { label: 'Open it again', act: () => window.location.reload() },
    },
  }),
);

/** The workspace of one project. */
export function BenchPage() {
  const { id = '' } = useParams();
  const [problem, setProblem] = useState<string>();
  const loaded = useBench((s) => s.projectId === id && s.model !== undefined);
  const stage = useBench((s) => s.stage);
  const reportOpen = useBench((s) => s.reportOpen);
  const detailsOpen = useBench((s) => s.detailsOpen);
  useBenchKeys();
  useHealth(loaded);

  useEffect(() => {
    let current = true;
    resetBench();
    setProblem(undefined);
    const listen = (event: BenchEvent) => {
      if (!current) return;
      if (event.kind === 'moving') moving.show(event.triangles, event.uv);
      else receive(event);
    };
    void (async () => {
      try {
        const model = unwrap(await bench.open(id, Comlink.proxy(listen)));
        const row = await database.projects.get(id);
        if (current) useBench.setState({ projectId: id, projectName: row?.name ?? model.name, model });
      } catch (error) {
        if (current) setProblem((error as Error).message);
      }
    })();
    return () => {
      current = false;
    };
  }, [id]);

  if (problem) {
    return (
      <main className="bench-state">
        <h1>This project did not open</h1>
        <p role="alert">{problem}</p>
        <Link to="/">Back to the Rack</Link>
      </main>
    );
  }
  return (
    <div className="bench" data-details={detailsOpen}>
      <Header />
      <Rail />
      <main className="bench-middle" aria-label="Bench">
        {loaded ? <Panes /> : <p className="bench-state">Opening the project…</p>}
        {loaded && <ViewKeeper />}
        {loaded && stage === 'deliver' && <DeliverView />}
        {loaded && stage === 'intake' && reportOpen && <HealthReportView />}
      </main>
      {detailsOpen && <Details />}
      <Strip />
    </div>
  );
}
