import type { LayoutFinding } from '@blunt-hem/core/inspect/inspection';
import { IconFileVector, IconPackageExport, IconPhoto } from '@tabler/icons-react';
import { Button, InputNumber, Select, Switch } from 'antd';
import { saveAs } from 'file-saver';
import { useEffect, useState } from 'react';
import { showFinding } from '../bench/details/LayoutFindings.tsx';
import { SEVERITIES } from '../bench/health/FindingCard.tsx';
import { fail } from '../store/acts.ts';
import { useBench } from '../store/bench.ts';
import { ask, bench, unwrap } from '../store/worker.ts';
import { BakeSection } from './BakeSection.tsx';
import { blobOf } from './blobOf.ts';
import { ExportSection } from './ExportSection.tsx';
import './deliver.css';
import { deliverFindings } from './findings.ts';

/** Most pixels of a template along its height: browsers draw no larger picture. */
const MOST_PIXELS = 8192;

/** Pixels in the height of the template as it is shown. */
const SHOWN = 1024;

/** Hand the model over: exports, and the template as it will look. */
export function DeliverView() {
  const flat = useBench((s) => s.flat);
  const repeats = useBench((s) => s.model?.repeats);
  const layout = useBench((s) => s.layout);
  const measured = useBench((s) => s.measured);
  const seamsShown = useBench((s) => s.seamsShown);
  const findings = deliverFindings({ layout, measured, seamsShown });
  const projectId = useBench((s) => s.projectId) as string;
  const [choice, setChoice] = useState({
    fills: true,
    edges: true,
    numbers: true,
  });
  const tiles = useBench((s) => s.tiles);
  const [number, setNumber] = useState<number>();
  const tile = tiles.find((each) => each.number === number) ?? tiles[0];
  const [size, setSize] = useState<number>();
  const template = { ...choice, tile: tile.number, size: size ?? Math.min(tile.height, MOST_PIXELS) };
  const [picture, setPicture] = useState<string>();

  // biome-ignore lint/correctness/useExhaustiveDependencies: the picture is of the UVs, which flat stands for
  useEffect(() => {
    let url: string | undefined;
    let current = true;
    void ask('export', { kind: 'svg', ...template })
      .then(async (file) => {
        // As pixels: a page that shows the lines themselves draws a hundred thousand of them anew each time.
        const pixels = file && current && (await drawPng(file.bytes, SHOWN));
        if (!pixels || !current) return;
        url = URL.createObjectURL(pixels);
        setPicture(url);
      })
      .catch(fail);
    return () => {
      current = false;
      if (url) URL.revokeObjectURL(url);
    };
  }, [flat, choice, tile]);

  /** What is being written now. */
  const [writing, setWriting] = useState<string>();
  const saving = async (what: string, work: () => Promise<void>) => {
    setWriting(what);
    try {
      await work();
    } catch (error) {
      fail(error);
    } finally {
      setWriting(undefined);
    }
  };
  const saveSvg = () =>
    saving('svg', async () => {
      const file = await ask('export', { kind: 'svg', ...template });
      if (file) saveAs(blobOf(file.bytes), file.fileName);
    });
  const savePng = () =>
    saving('png', async () => {
      const file = await ask('export', { kind: 'svg', ...template });
      if (file) saveAs(await drawPng(file.bytes, template.size), file.fileName.replace(/\.svg$/, '.png'));
    });
  const saveProject = () =>
    saving('project', async () => {
      const file = unwrap(await bench.exportProject(projectId));
      saveAs(blobOf(file.bytes), file.fileName);
    });
  const set = (part: Partial<typeof choice>) => setChoice({ ...choice, ...part });
  return (
    <section className="deliver" aria-label="Deliver">
      <div className="deliver-picture">
        {picture && <img src={picture} alt="Template: the shells as they lie in the tile" />}
      </div>
      <div className="deliver-side">
        <h2>The model, with its UVs</h2>
        <p>
          {repeats === 'none'
            ? 'Vertices, polygons, names and groups as they are here. The file is composed anew, without what else the opened one had.'
            : 'Vertices, polygons, names and groups come out as they came in, in the same order. Only UVs are new.'}
        </p>
        <ExportSection writing={writing} saving={saving} />
        <h2>Template to paint over</h2>
        <div className="deliver-options">
          {tiles.length > 1 && (
            <Select<number>
              size="small"
              aria-label="Template of which tile"
              value={tile.number}
              options={tiles.map((each) => ({ value: each.number, label: `Tile ${each.number}` }))}
              onChange={setNumber}
            />
          )}
          <label htmlFor="template-size">
            Height, px
            <InputNumber
              id="template-size"
              size="small"
              min={64}
              max={MOST_PIXELS}
              step={1024}
              value={template.size}
              onChange={(next) => setSize(next ?? undefined)}
            />
          </label>
          <span>
            <Switch
              size="small"
              checked={choice.fills}
              onChange={(fills) => set({ fills })}
              aria-label="Fill the shells"
            />{' '}
            Fills
          </span>
          <span>
            <Switch
              size="small"
              checked={choice.edges}
              onChange={(edges) => set({ edges })}
              aria-label="Draw the edges"
            />{' '}
            Edges
          </span>
          <span>
            <Switch
              size="small"
              checked={choice.numbers}
              onChange={(numbers) => set({ numbers })}
              aria-label="Write the numbers"
            />{' '}
            Numbers
          </span>
        </div>
        <div className="deliver-row">
          <Button icon={<IconPhoto size={16} />} loading={writing === 'png'} onClick={() => void savePng()}>
            Template PNG
          </Button>
          <Button
            icon={<IconFileVector size={16} />}
            loading={writing === 'svg'}
            onClick={() => void saveSvg()}
          >
            Template SVG
          </Button>
        </div>
        <h2>The project</h2>
        <div className="deliver-row">
          <Button
            icon={<IconPackageExport size={16} />}
            loading={writing === 'project'}
            onClick={() => void saveProject()}
          >
            Export project file
          </Button>
        </div>
        <h2>Before you hand it over</h2>
        {findings === undefined ? (
          <p>Being measured…</p>
        ) : findings.length === 0 ? (
          <p className="deliver-good">
            Every shell is flat and little stretched, inside the tiles, clear of the others by the padding,
            and neither flipped, folded nor collapsed.
          </p>
        ) : (
          <ul className="deliver-findings">
            {findings.map((finding) => (
              <li key={finding.kind} title={finding.effect} data-severity={finding.severity}>
                <span>
                  <span aria-hidden>{SEVERITIES[finding.severity].mark}</span> {finding.title}
                </span>
                <Button size="small" onClick={() => inspectFinding(finding)}>
                  Show
                </Button>
              </li>
            ))}
          </ul>
        )}
        <BakeSection tile={tile.number} />
      </div>
    </section>
  );
}

/** Goes to where it can be seen and mended. */
function inspectFinding(finding: LayoutFinding): void {
  useBench.setState({ stage: 'inspect' });
  showFinding(finding);
}

/** @param height  pixels; it is as much wider as the template is */
async function drawPng(svg: Uint8Array, height: number): Promise<Blob> {
  const url = URL.createObjectURL(blobOf(svg, 'image/svg+xml'));
  try {
    const image = new Image();
    image.src = url;
    await image.decode();
    const width = Math.round((height * image.width) / image.height);
    const canvas = new OffscreenCanvas(width, height);
    // Drawn where it is read: a graphics card would take its time for so many lines, and give them back.
    canvas.getContext('2d', { willReadFrequently: true })?.drawImage(image, 0, 0, width, height);
    return await canvas.convertToBlob({ type: 'image/png' });
  } finally {
    URL.revokeObjectURL(url);
  }
}
