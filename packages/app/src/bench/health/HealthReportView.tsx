import { IconDownload, IconPrinter, IconX } from '@tabler/icons-react';
import { Button } from 'antd';
import { saveAs } from 'file-saver';
import { useEffect, useState } from 'react';
import { useBench } from '../../store/bench.ts';
import { bench } from '../../store/worker.ts';
import type { FindingRow, HealthReport, ModelBuffers } from '../../worker/protocol.ts';
import { SEVERITIES } from './FindingCard.tsx';
import './report.css';

const number = (n: number): string => n.toLocaleString('en-GB');
const length = (x: number): string =>
  Number(x.toPrecision(3)).toLocaleString('en-GB', { maximumFractionDigits: 9 });
/** Pieces beyond so many are told together. */
const MOST_PIECES = 40;

/** The state of a model for whoever reviews it: findings by severity and part, and what it is made of. Prints on paper. */
export function HealthReportView() {
  const health = useBench((s) => s.health);
  const model = useBench((s) => s.model);
  const name = useBench((s) => s.projectName);
  if (!model) return null;
  return (
    <section className="report" aria-label="Health report">
      <header>
        <h1>Health of {name}</h1>
        <span className="report-acts">
          <Button
            icon={<IconDownload size={16} />}
            disabled={!health}
            onClick={() => health && saveAs(reportFile(name, model, health), `${model.name}-health.json`)}
          >
            Save as JSON
          </Button>
          <Button icon={<IconPrinter size={16} />} onClick={() => window.print()}>
            Print
          </Button>
          <Button
            icon={<IconX size={16} />}
            aria-label="Close the report"
            onClick={() => useBench.setState({ reportOpen: false })}
          />
        </span>
      </header>
      {health ? <Report model={model} health={health} /> : <p>The model is being examined…</p>}
    </section>
  );
}

function Report({ model, health }: { readonly model: ModelBuffers; readonly health: HealthReport }) {
  const { findings, figures } = health;
  return (
    <>
      <h2>Findings</h2>
      {findings.length === 0 && <p>Nothing wrong was found.</p>}
      {findings.length > 0 && (
        <table>
          <thead>
            <tr>
              <th>What</th>
              <th>How bad</th>
              <th>What it does to the UVs</th>
              <th>Where</th>
              <th>Repair</th>
            </tr>
          </thead>
          <tbody>
            {bySeverity(findings).map((row) => (
              <tr key={row.kind}>
                <td>
                  <Picture row={row} />
                  <strong>
                    <span aria-hidden>{SEVERITIES[row.severity].mark}</span> {row.title}
                  </strong>
                </td>
                <td>{SEVERITIES[row.severity].words}</td>
                <td>{row.effect}</td>
                <td>{partsText(row, model)}</td>
                <td>{row.repair ? `${row.repair.label}${row.repair.safe ? ', safe' : ''}` : 'by hand'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <h2>The model</h2>
      <dl>
        <dt>Vertices · edges · faces</dt>
        <dd>
          {number(figures.vertices)} · {number(figures.edges)} · {number(figures.faces)}
        </dd>
        <dt>Triangles · quads · larger</dt>
        <dd>
          {number(figures.triangles)} · {number(figures.quads)} · {number(figures.polygons)}
        </dd>
        <dt>Edge length: least · mean · greatest</dt>
        <dd>
          {length(figures.leastEdge)} · {length(figures.meanEdge)} · {length(figures.greatestEdge)}
        </dd>
        <dt>Parts · pieces</dt>
        <dd>
          {number(model.parts[0].names.length)} · {number(figures.pieces.length)}
        </dd>
      </dl>
      <table>
        <thead>
          <tr>
            <th>Piece</th>
            <th>Faces</th>
            <th>Vertices</th>
            <th>Euler characteristic</th>
            <th>Borders</th>
            <th>Handles</th>
          </tr>
        </thead>
        <tbody>
          {figures.pieces.slice(0, MOST_PIECES).map((piece, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: pieces are told apart by their number
            <tr key={i}>
              <td>{i + 1}</td>
              <td>{number(piece.faces)}</td>
              <td>{number(piece.vertices)}</td>
              <td>{piece.euler}</td>
              <td>{piece.borders === 0 ? 'closed' : piece.borders}</td>
              <td>{piece.genus ?? 'no surface'}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {figures.pieces.length > MOST_PIECES && (
        <p>… and {number(figures.pieces.length - MOST_PIECES)} more.</p>
      )}
    </>
  );
}

/** Where it is: the faces meant, marked. */
function Picture({ row }: { readonly row: FindingRow }) {
  const [url, setUrl] = useState<string>();
  useEffect(() => {
    let made: string | undefined;
    let current = true;
    void bench.pictureOf(row.faces, row.edges).then((blob) => {
      if (!blob || !current) return;
      made = URL.createObjectURL(blob);
      setUrl(made);
    });
    return () => {
      current = false;
      if (made) URL.revokeObjectURL(made);
    };
  }, [row]);
  return url ? <img src={url} alt={`${row.title}, marked on the model`} /> : null;
}

const ORDER: readonly FindingRow['severity'][] = ['spoils', 'hint'];
const bySeverity = (rows: readonly FindingRow[]): FindingRow[] =>
  [...rows].sort((a, b) => ORDER.indexOf(a.severity) - ORDER.indexOf(b.severity));

/** The parts a finding is in, those with most of it first. */
function partsOf(
  row: FindingRow,
  { parts: [{ facePart, names }] }: ModelBuffers,
): { name: string; faces: number }[] {
  const counts = new Map<number, number>();
  for (const f of row.faces) counts.set(facePart[f], (counts.get(facePart[f]) ?? 0) + 1);
  return [...counts]
    .sort(([, a], [, b]) => b - a)
    .map(([part, faces]) => ({ name: names[part] || 'Unnamed', faces }));
}

function partsText(row: FindingRow, model: ModelBuffers): string {
  const parts = partsOf(row, model);
  if (parts.length === 0) return row.edges.length > 0 ? `${number(row.edges.length)} edges` : '–';
  const shown = parts.slice(0, 3).map(({ name }) => name);
  return shown.join(', ') + (parts.length > 3 ? ` and ${parts.length - 3} more` : '');
}

function reportFile(name: string, model: ModelBuffers, { findings, figures }: HealthReport): Blob {
  const report = {
    project: name,
    figures,
    findings: findings.map((row) => ({
      ...row,
      parts: partsOf(row, model),
      faces: [...row.faces],
      edges: [...row.edges].map((e) => [...model.edgeVertices.subarray(2 * e, 2 * e + 2)]),
    })),
  };
  return new Blob([`${JSON.stringify(report, null, 2)}\n`], { type: 'application/json' });
}
