import type { ParamsOf } from '@blunt-hem/core/operations/catalogue';
import {
  type Icon,
  IconArrowBarToLeft,
  IconArrowsExchange,
  IconArrowsJoin2,
  IconArrowsMaximize,
  IconArrowsSplit2,
  IconArrowsVertical,
  IconBoxAlignTopLeft,
  IconCircle,
  IconColumnInsertRight,
  IconColumns2,
  IconCompass,
  IconCopy,
  IconGrid4x4,
  IconLayoutAlignBottom,
  IconLayoutAlignCenter,
  IconLayoutAlignLeft,
  IconLayoutAlignMiddle,
  IconLayoutAlignRight,
  IconLayoutAlignTop,
  IconLayoutDistributeHorizontal,
  IconLayoutDistributeVertical,
  IconLine,
  IconLineDashed,
  IconRectangle,
  IconRuler2,
  IconRulerMeasure,
  IconSpacingHorizontal,
  IconSpacingVertical,
  IconStack,
  IconStack2,
  IconWallpaper,
} from '@tabler/icons-react';
import { Button, InputNumber, Segmented, Tooltip } from 'antd';
import { perform } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { asRequested, namesOfChosen, selectedFaces } from '../../store/select.ts';
import { placesOfPoints } from '../commands/flattening.ts';
import { TilesPanel } from './TilesPanel.tsx';
import { WeldFields } from './WeldFields.tsx';

type Side = ParamsOf<'align-shells'>['to'];
type Match = ParamsOf<'match-shells'>['what'];

const SIDES: readonly (readonly [to: Side, words: string, icon: Icon])[] = [
  ['left', 'left sides', IconLayoutAlignLeft],
  ['middle-u', 'middles, across', IconLayoutAlignCenter],
  ['right', 'right sides', IconLayoutAlignRight],
  ['top', 'upper sides', IconLayoutAlignTop],
  ['middle-v', 'middles, up', IconLayoutAlignMiddle],
  ['bottom', 'lower sides', IconLayoutAlignBottom],
];

const MATCHES: readonly (readonly [what: Match, words: string, icon: Icon])[] = [
  ['scale', 'Texture scale', IconRulerMeasure],
  ['turn', 'Turn', IconCompass],
  ['place', 'Place', IconStack],
];

/** What is chosen and how it is laid, and the tiles. */
export function ArrangePanel() {
  const target = useBench((s) => s.target);
  const shells = useBench((s) => s.shells);
  const isFlat = shells.some(({ box }) => box);
  return (
    <>
      <TogetherPanel />
      {target === 'edges' && isFlat && <WeldFields />}
      <TilesPanel />
    </>
  );
}

/** What is done to chosen shells together, and to shells by chosen edges of theirs. */
function TogetherPanel() {
  const count = useBench((s) => [...s.chosen].filter((shell) => s.shells[shell]?.box).length);
  const hasEdges = useBench((s) => s.edges.size > 0 && s.target === 'edges');
  const hasPoints = useBench((s) => s.points.size > 0 && s.target === 'points');
  const hasFaces = useBench((s) => s.faces.size > 0 && s.target === 'faces');
  if (hasFaces) return <FaceButtons />;
  if (hasPoints) return <PointButtons />;
  if (hasEdges) return <EdgeButtons />;
  if (count === 0) return null;
  return (
    <fieldset className="place-fields arrange-buttons">
      <legend>{count === 1 ? 'In the tile' : 'To one another'}</legend>
      <div>
        {SIDES.map(([to, words, icon]) => (
          <IconButton
            key={to}
            icon={icon}
            words={count === 1 ? `To the padding of the tile: ${words}` : `Align ${words}`}
            act={() =>
              perform('align-shells', {
                shells: namesOfChosen(),
                to,
                within: count === 1 ? 'tile' : 'selection',
              })
            }
          />
        ))}
      </div>
      <div>
        {count > 2 &&
          (['u', 'v'] as const).map((along) => (
            <IconButton
              key={along}
              icon={along === 'u' ? IconLayoutDistributeVertical : IconLayoutDistributeHorizontal}
              words={along === 'u' ? 'Even gaps across' : 'Even gaps upwards'}
              act={() => perform('spread-shells', { shells: namesOfChosen(), along })}
            />
          ))}
        {count === 2 && (
          <IconButton
            icon={IconArrowsExchange}
            words="Swap the two"
            act={() => perform('swap-shells', { shells: namesOfChosen() })}
          />
        )}
        <IconButton
          icon={IconArrowsMaximize}
          words="Fit into the tile, or the region that is drawn"
          act={() =>
            perform('fit-shells', { shells: namesOfChosen(), region: useBench.getState().packRegion })
          }
        />
        <IconButton
          icon={IconBoxAlignTopLeft}
          words="Gather in the first tile, by whole tiles"
          act={() => perform('gather-shells', { shells: namesOfChosen() })}
        />
      </div>
      <legend>Shape and grain</legend>
      <div>
        <IconButton
          icon={IconRectangle}
          words="Lay their borders on rectangles, the inside within them"
          act={() => perform('lay-border', { shells: namesOfChosen(), shape: 'rectangle' })}
        />
        <IconButton
          icon={IconCircle}
          words="Lay their borders on circles, the inside within them"
          act={() => perform('lay-border', { shells: namesOfChosen(), shape: 'circle' })}
        />
        <IconButton
          icon={IconWallpaper}
          words="Unfold the folds, the rest held"
          act={() => perform('unfold-folds', { shells: namesOfChosen() })}
        />
        <IconButton
          icon={IconArrowsVertical}
          words="Grain along them, the way they are long"
          act={() => perform('grain-along-shells', { shells: namesOfChosen() })}
        />
        <IconButton
          icon={IconArrowsJoin2}
          words="Join mirrored halves down the middle, laid flat anew"
          act={() => perform('join-halves', { shells: namesOfChosen() })}
        />
        <IconButton
          icon={IconArrowsSplit2}
          words="Set stacked ones apart, the right way round"
          act={() => perform('set-apart', { shells: namesOfChosen() })}
        />
        <IconButton
          icon={IconColumns2}
          words="Set stacked ones apart by whole tiles, for a bake"
          act={() => perform('set-apart', { shells: namesOfChosen(), where: 'tile' })}
        />
      </div>
      {count > 1 ? <MatchButtons /> : <CopyButtons />}
    </fieldset>
  );
}

/** The shell that was chosen last is the one that the others are to be like. */
function MatchButtons() {
  const last = useBench((s) => [...s.chosen].at(-1) ?? 0);
  const like = useBench((s) => s.shells[last]?.name ?? 0);
  return (
    <>
      <legend>Like shell {last + 1}</legend>
      <div>
        {MATCHES.map(([what, words, icon]) => (
          <IconButton
            key={what}
            icon={icon}
            words={`${words} as shell ${last + 1} has it`}
            act={() => perform('match-shells', { shells: namesOfChosen(), like, what })}
          />
        ))}
      </div>
    </>
  );
}

const COPIES: readonly (readonly [where: 'stacked' | 'own' | 'tile', words: string, icon: Icon])[] = [
  ['stacked', 'Its UVs to all copies, on top of it', IconStack2],
  ['own', 'Its UVs to all copies, each in its place', IconCopy],
  ['tile', 'Its UVs to all copies, one tile beside it', IconColumnInsertRight],
];

/** Shells of the same shape get the UVs of the one that is chosen. */
function CopyButtons() {
  const like = useBench((s) => s.shells[[...s.chosen][0]]?.name ?? 0);
  return (
    <>
      <legend>Copies of it</legend>
      <div>
        {COPIES.map(([where, words, icon]) => (
          <IconButton
            key={where}
            icon={icon}
            words={words}
            act={() => perform('give-uvs', { like, where })}
          />
        ))}
      </div>
    </>
  );
}

type Line = ParamsOf<'align-points'>['to'];

const LINES: readonly (readonly [to: Line, words: string, icon: Icon])[] = [
  ['least-u', 'Align to the least u', IconLayoutAlignLeft],
  ['mean-u', 'Align to their mean u', IconLayoutAlignCenter],
  ['greatest-u', 'Align to the greatest u', IconLayoutAlignRight],
  ['greatest-v', 'Align to the greatest v', IconLayoutAlignTop],
  ['mean-v', 'Align to their mean v', IconLayoutAlignMiddle],
  ['least-v', 'Align to the least v', IconLayoutAlignBottom],
  ['ends', 'Onto the line through the two farthest apart', IconLine],
];

function PointButtons() {
  const inside = useBench((s) => s.inside);
  return (
    <fieldset className="place-fields arrange-buttons">
      <legend>Points onto a line</legend>
      <div>
        {LINES.map(([to, words, icon]) => (
          <IconButton
            key={to}
            icon={icon}
            words={words}
            act={() => perform('align-points', { places: placesOfPoints(useBench.getState()), to, inside })}
          />
        ))}
      </div>
      <div>
        <IconButton
          icon={IconRectangle}
          words="The border of their shell onto a rectangle, with these four points as its corners"
          act={() => {
            const corners = placesOfPoints(useBench.getState());
            return perform('lay-border', {
              shells: corners.slice(0, 1).map(({ face }) => face),
              shape: 'rectangle',
              corners,
              inside,
            });
          }}
        />
      </div>
      <InsideChoice />
      <PullFields />
    </fieldset>
  );
}

/** What is done to faces where they lie. */
function FaceButtons() {
  const inside = useBench((s) => s.inside);
  return (
    <fieldset className="place-fields arrange-buttons">
      <legend>These faces</legend>
      <div>
        <IconButton
          icon={IconGrid4x4}
          words="Lay them as a square grid, rows as wide as on the model"
          act={() => perform('square-grid', { faces: selectedFaces(), inside })}
        />
      </div>
      <InsideChoice />
      <PullFields />
    </fieldset>
  );
}

/** How far off others go along when points are dragged. */
function PullFields() {
  const radius = useBench((s) => s.pullRadius);
  const falloff = useBench((s) => s.falloff);
  const height = useBench((s) => s.tiles[0].height);
  const inside = useBench((s) => s.inside);
  if (inside === 'follows') return null;
  return (
    <>
      <label htmlFor="pull-radius">
        Take along within, px
        <InputNumber
          id="pull-radius"
          size="small"
          min={0}
          max={height}
          step={16}
          value={Math.round(radius * height)}
          onChange={(value) => useBench.setState({ pullRadius: (value ?? 0) / height })}
        />
      </label>
      <Segmented<'smooth' | 'linear'>
        size="small"
        aria-label="How that lessens"
        value={falloff}
        options={[
          { value: 'smooth', label: 'Smoothly' },
          { value: 'linear', label: 'Evenly' },
        ]}
        onChange={(value) => useBench.setState({ falloff: value })}
      />
    </>
  );
}

const ROWS: readonly (readonly [along: 'ends' | 'level' | 'upright', words: string, icon: Icon])[] = [
  ['ends', 'Straighten from end to end', IconLine],
  ['level', 'Straighten, level', IconSpacingHorizontal],
  ['upright', 'Straighten, upright', IconSpacingVertical],
];

function EdgeButtons() {
  const inside = useBench((s) => s.inside);
  const edges = () => asRequested('edges', [...useBench.getState().edges]);
  return (
    <fieldset className="place-fields arrange-buttons">
      <legend>By these edges</legend>
      <div>
        {(['level', 'upright'] as const).map((to) => (
          <IconButton
            key={to}
            icon={to === 'level' ? IconLineDashed : IconRuler2}
            words={`Turn the shell so that they lie ${to}`}
            act={() => perform('level-edges', { edges: edges(), to })}
          />
        ))}
        {ROWS.map(([along, words, icon]) => (
          <IconButton
            key={along}
            icon={icon}
            words={words}
            act={() => perform('straighten-row', { edges: edges(), along, inside })}
          />
        ))}
        <IconButton
          icon={IconArrowBarToLeft}
          words="Bring the smaller shell over along these seams"
          act={() => perform('sew-over', { edges: edges() })}
        />
      </div>
      <InsideChoice />
    </fieldset>
  );
}

/** Whether the rest of a shell stays when some of its points are moved. */
function InsideChoice() {
  const inside = useBench((s) => s.inside);
  return (
    <Segmented<'stays' | 'follows'>
      size="small"
      aria-label="The rest of the shell"
      value={inside}
      options={[
        { value: 'stays', label: 'Inside stays' },
        { value: 'follows', label: 'Inside follows' },
      ]}
      onChange={(value) => useBench.setState({ inside: value })}
    />
  );
}

function IconButton(props: {
  readonly icon: Icon;
  readonly words: string;
  readonly act: () => Promise<unknown>;
}) {
  const { icon: Picture, words, act } = props;
  return (
    <Tooltip title={words}>
      <Button size="small" icon={<Picture size={16} />} aria-label={words} onClick={() => void act()} />
    </Tooltip>
  );
}
