import { plural } from '@blunt-hem/core/plural';
import { HIDDEN, PRESETS } from '@blunt-hem/core/propose/presets';
import type { Proposal, ProposedShell } from '@blunt-hem/core/questions/proposal';
import { VIEWS, type View } from '@blunt-hem/core/surface/visibility';
import { Button, Checkbox, InputNumber, Select, Slider } from 'antd';
import { useState } from 'react';
import { useBench } from '../../store/bench.ts';
import {
  countBeyond,
  discardProposal,
  holdProposal,
  propose,
  selectProposal,
  takeProposal,
} from '../../store/propose.ts';
import { parameterOf } from '../parameterOf.ts';
import { RailSlider } from '../rail/RailSlider.tsx';
import { decimal } from '../reading.ts';

const ofHidden = parameterOf('proposal', 'hidden');
const ofPieces = parameterOf('proposal', 'pieces');

type Preset = keyof typeof PRESETS;
const PRESET_LABELS: Readonly<Record<Preset, string>> = {
  clean: 'Few clean shells',
  rough: 'Quick rough cut',
};
/** Shells that are told of one by one; the rest is in the count. */
const MOST_TOLD = 12;

/** Asks for a proposal, and tells what would come of it. */
export function ProposalPanel() {
  const [preset, setPreset] = useState<Preset>('clean');
  const [stretch, setStretch] = useState(PRESETS.clean.most);
  const [hidden, setHidden] = useState(HIDDEN);
  const lookedAt = useBench((s) => s.lookedAt);
  const proposing = useBench((s) => s.proposing !== undefined);
  const proposal = useBench((s) => s.proposal);
  const chosen = useBench((s) => s.chosen.size);
  const hasPatches = useBench((s) => s.patches.names.some(Boolean));
  const [patches, setPatches] = useState(true);
  const [limbs, setLimbs] = useState(false);
  const [pieces, setPieces] = useState<number>();
  return (
    <>
      <Select<Preset>
        size="small"
        className="wide"
        aria-label="What for"
        value={preset}
        options={(Object.keys(PRESETS) as Preset[]).map((value) => ({ value, label: PRESET_LABELS[value] }))}
        onChange={(value) => {
          setPreset(value);
          setStretch(PRESETS[value].most);
        }}
      />
      <Select<View>
        size="small"
        className="wide"
        aria-label="Looked at"
        value={lookedAt}
        options={VIEWS.map((value) => ({ value, label: `Looked at ${value}` }))}
        onChange={(value) => useBench.setState({ lookedAt: value })}
      />
      <div className="rail-slider">
        <span>Stretch up to {stretch.toFixed(2)}</span>
        <Slider
          min={1.01}
          max={1.6}
          step={0.01}
          value={stretch}
          tooltip={{ open: false }}
          onChange={setStretch}
          ariaLabelForHandle="Stretch that is allowed"
        />
      </div>
      <RailSlider
        left="Short"
        right="Hidden"
        {...ofHidden.range}
        step={0.1}
        value={hidden}
        onChange={setHidden}
        label="From short seams to hidden ones"
      />
      <Checkbox checked={limbs} onChange={(event) => setLimbs(event.target.checked)}>
        Cut limbs off where they join the body
      </Checkbox>
      <label className="rail-field" htmlFor="proposal-pieces">
        About so many shells
        <InputNumber
          id="proposal-pieces"
          size="small"
          {...ofPieces.range}
          precision={0}
          placeholder="as it takes"
          value={pieces}
          onChange={(value) => setPieces(value ?? undefined)}
        />
      </label>
      {hasPatches && (
        <Checkbox checked={patches} onChange={(event) => setPatches(event.target.checked)}>
          Cut out every patch as it is
        </Checkbox>
      )}
      <Button
        size="small"
        block
        type="primary"
        loading={proposing}
        onClick={() => void propose({ preset, stretch, hidden, patches, limbs, pieces })}
      >
        Propose seams for {chosen > 0 ? plural(chosen, 'shell') : 'all'}
        {proposal ? ' again' : ''}
      </Button>
      {chosen === 0 && !proposal && <p className="selection-hint">Pick shells to have them cut alone.</p>}
      {proposal && <Proposed />}
    </>
  );
}

/** What is told of a proposal. */
const FIGURES: readonly { readonly label: string; read(proposal: Proposal): string }[] = [
  { label: 'Edges', read: ({ edges }) => edges.length.toLocaleString('en-GB') },
  { label: 'Shells', read: ({ shells }) => shells.length.toLocaleString('en-GB') },
  { label: 'Worst L2', read: ({ shells }) => figure(Math.max(...shells.map(({ l2 }) => l2 ?? Infinity))) },
  { label: 'Seam length', read: ({ length }) => decimal(length, 2) },
  { label: 'In heights of the model', read: ({ heights }) => `${heights.toFixed(1)} ×` },
  { label: 'Where least is seen', read: ({ hidden }) => `${Math.round(100 * hidden)} %` },
  {
    label: 'Symmetric',
    read: ({ symmetric }) => (symmetric === undefined ? '–' : `${Math.round(100 * symmetric)} %`),
  },
];

function Proposed() {
  const held = useBench((s) => s.heldProposal);
  const limits = useBench((s) => s.limits);
  const proposal = useBench((s) => s.proposal);
  if (!proposal) return null;
  const { edges, shells, nonManifoldEdges, good, locked } = proposal;
  const beyond = countBeyond(shells, limits);
  const told = [...shells].sort((a, b) => b.faces - a.faces).slice(0, MOST_TOLD);
  return (
    <>
      <table className="proposal-figures" aria-label="What is proposed">
        {held && (
          <thead>
            <tr>
              <td />
              <th scope="col">shown</th>
              <th scope="col">held</th>
            </tr>
          </thead>
        )}
        <tbody>
          {FIGURES.map(({ label, read }) => (
            <tr key={label}>
              <th scope="row">{label}</th>
              <td>{read(proposal)}</td>
              {held && <td>{read(held)}</td>}
            </tr>
          ))}
        </tbody>
      </table>
      {beyond > 0 && (
        <p className="selection-hint">
          {plural(beyond, 'shell')} would be stretched beyond the limits of this model.
        </p>
      )}
      {good + locked > 0 && <p className="selection-hint">{leftAlone(good, locked)}</p>}
      {nonManifoldEdges > 0 && (
        <p className="selection-hint">
          {plural(nonManifoldEdges, 'edge')} of this mesh {nonManifoldEdges === 1 ? 'has' : 'have'} more than
          two faces, or faces that look different ways. Every shell ends there: repair them in Intake, and
          fewer seams will do.
        </p>
      )}
      <div className="button-grid">
        <Button size="small" type="primary" onClick={() => void takeProposal(edges)}>
          Cut {plural(edges.length, 'edge')}
        </Button>
        <Button size="small" onClick={holdProposal}>
          {held ? 'Show the held one' : 'Hold to compare'}
        </Button>
        <Button size="small" onClick={selectProposal}>
          Select them
        </Button>
        <Button size="small" onClick={discardProposal}>
          Discard
        </Button>
      </div>
      <ul className="proposed-shells">
        {told.map((shell) => (
          <ProposedRow key={shell.face} shell={shell} />
        ))}
      </ul>
    </>
  );
}

/** What no seams were proposed for. */
const leftAlone = (good: number, locked: number): string =>
  `${[
    good > 0 && `${plural(good, 'shell')} within that stretch`,
    locked > 0 && `${plural(locked, 'locked shell')}`,
  ]
    .filter(Boolean)
    .join(' and ')} left alone.`;

const figure = (l2: number): string => (Number.isFinite(l2) ? l2.toFixed(3) : '–');

function ProposedRow({ shell }: { readonly shell: ProposedShell }) {
  const { faces, l2, liesOnItself, edges } = shell;
  return (
    <li>
      <span>{plural(faces, 'face')}</span>
      <span>{l2 === undefined ? 'cannot lie flat' : `L2 ${figure(l2)}`}</span>
      <span>{liesOnItself ? 'on itself' : ''}</span>
      <Button size="small" type="link" onClick={() => void takeProposal(edges)}>
        Cut it out
      </Button>
    </li>
  );
}
