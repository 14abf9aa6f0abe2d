import { IconBrush, IconPlus, IconPointer, IconX } from '@tabler/icons-react';
import { Button, InputNumber, Tooltip, Typography } from 'antd';
import { useState } from 'react';
import { fail, hint, perform, picked } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { facesRequested, namesOfChosen, select, selectedFaces } from '../../store/select.ts';
import { ask } from '../../store/worker.ts';
import { isUncut } from '../commands/seams.ts';
import { colourOfPatch, patches as overlay } from '../overlays/patches.ts';
import { weights as weightOverlay } from '../overlays/weights.ts';
import { takeTool } from '../tools/index.ts';

/** Named sets of faces that are meant to become shells. */
export function PatchesPanel() {
  const { names } = useBench((s) => s.patches);
  const some = useBench((s) => s.faces.size + s.chosen.size > 0);
  const shells = useBench((s) => s.chosen.size);
  const isPainted = useBench((s) => s.paints === 'new' && s.tool === 'paint');
  const isShown = useBench((s) => s.overlay === overlay.name);
  const numbers = names.flatMap((name, i) => (name ? [i + 1] : []));
  return (
    <>
      {numbers.length === 0 ? (
        <p className="selection-hint">
          A patch is a named set of faces that is to become a shell: paint it, or make it of faces you picked.
        </p>
      ) : (
        <ul className="patches">
          {numbers.map((patch) => (
            <PatchRow key={patch} patch={patch} />
          ))}
        </ul>
      )}
      <div className="button-grid">
        <Button size="small" type={isPainted ? 'primary' : 'default'} onClick={() => paint('new')}>
          Paint a new patch
        </Button>
        <Button size="small" disabled={!some} onClick={() => void paintSelected('new')}>
          Patch of the faces
        </Button>
        <Button size="small" disabled={shells === 0} onClick={() => void patchesOfShells()}>
          One of each shell
        </Button>
        <Button
          size="small"
          disabled={!some || numbers.length === 0}
          onClick={() => void paintSelected('none')}
        >
          Take out of patches
        </Button>
        {numbers.length > 0 && (
          <Button size="small" onClick={() => void selectBorders()}>
            Select their borders
          </Button>
        )}
        {numbers.length > 0 && (
          <Button
            size="small"
            type={isShown ? 'primary' : 'default'}
            onClick={() => useBench.setState({ overlay: isShown ? undefined : overlay.name })}
          >
            {isShown ? 'Hide colours' : 'Show colours'}
          </Button>
        )}
      </div>
    </>
  );
}

function PatchRow({ patch }: { readonly patch: number }) {
  const { names, faces, weights } = useBench((s) => s.patches);
  const paints = useBench((s) => s.paints === patch && s.tool === 'paint');
  const some = useBench((s) => s.faces.size + s.chosen.size > 0);
  const name = names[patch - 1];
  return (
    <li>
      <i className="patch-colour" style={{ background: colourOfPatch(patch) }} />
      <Typography.Text
        ellipsis
        editable={{
          text: name,
          maxLength: 60,
          tooltip: 'Rename',
          onChange: (to) => rename(patch, name, to.trim()),
        }}
      >
        {name}
      </Typography.Text>
      <span>{faces[patch - 1].toLocaleString('en-GB')}</span>
      <Weight key={weights[patch - 1]} patch={patch} name={name} weight={weights[patch - 1]} />
      {some && (
        <Tooltip title="Put the picked faces in">
          <Button
            size="small"
            type="text"
            icon={<IconPlus size={14} />}
            aria-label={`Put faces in ${name}`}
            onClick={() => void paintSelected(patch)}
          />
        </Tooltip>
      )}
      <Tooltip title="Paint it by brush">
        <Button
          size="small"
          type={paints ? 'primary' : 'text'}
          icon={<IconBrush size={14} />}
          aria-label={`Paint ${name}`}
          onClick={() => paint(patch)}
        />
      </Tooltip>
      <Tooltip title="Select its faces">
        <Button
          size="small"
          type="text"
          icon={<IconPointer size={14} />}
          aria-label={`Select ${name}`}
          onClick={() => selectPatch(patch)}
        />
      </Tooltip>
      <Tooltip title="Remove it from the list; its faces stay">
        <Button
          size="small"
          type="text"
          icon={<IconX size={14} />}
          aria-label={`Remove ${name}`}
          onClick={() => void perform('remove-patch', { patch })}
        />
      </Tooltip>
    </li>
  );
}

/** How much finer the texture is to be there. */
function Weight(props: { readonly patch: number; readonly name: string; readonly weight: number }) {
  const { patch, name, weight } = props;
  const [draft, setDraft] = useState<number | null>(weight);
  const done = async (): Promise<void> => {
    if (draft === null || draft === weight) return;
    if (await perform('weigh-patch', { patch, times: draft }))
      useBench.setState({ overlay: weightOverlay.name });
  };
  return (
    <Tooltip title="How much finer its texture is than that of the rest">
      <InputNumber
        size="small"
        className="patch-weight"
        prefix="×"
        min={1 / 16}
        max={16}
        step={0.5}
        controls={false}
        value={draft}
        aria-label={`Fineness of ${name}`}
        onChange={setDraft}
        onBlur={() => void done()}
        onPressEnter={() => void done()}
      />
    </Tooltip>
  );
}

function rename(patch: number, from: string, to: string): void {
  if (to && to !== from) void perform('name-patch', { patch, name: to });
}

function paint(patch: number | 'new'): void {
  useBench.setState({ paints: patch, overlay: overlay.name });
  takeTool('paint');
}

function selectPatch(patch: number): void {
  const { model, patches } = useBench.getState();
  if (!model) return;
  const faces = new Set<number>();
  model.triangleFace.forEach((f, t) => {
    if (patches.triangles[t] === patch) faces.add(f);
  });
  useBench.setState({ target: 'faces' });
  const name = patches.names[patch - 1];
  select('faces', faces, 'only', name ? { of: 'patch', name } : undefined);
  if (faces.size === 0) hint('No face is in this patch: paint some, or pick faces and put them in.');
}

/** Edges round patches that are no seams yet; cutting them makes shells of the patches. */
async function selectBorders(): Promise<void> {
  try {
    const by = { rule: 'patch' } as const;
    const found = await ask('chosen', { of: 'edges', by });
    if (!found) return;
    const edges = found.filter(isUncut(useBench.getState()));
    if (edges.length === 0) return hint('Every patch is a shell by itself already.');
    useBench.setState({ target: 'edges' });
    select('edges', edges, 'only', by);
  } catch (error) {
    fail(error);
  }
}

async function paintSelected(patch: number | 'new' | 'none'): Promise<void> {
  await picked();
  if (selectedFaces().length === 0) return hint('Pick faces or shells first.');
  if (await perform('paint-patch', { faces: facesRequested(), patch }))
    useBench.setState({ overlay: overlay.name });
}

async function patchesOfShells(): Promise<void> {
  await picked();
  const shells = namesOfChosen();
  if (await perform('patch-shells', { shells })) useBench.setState({ overlay: overlay.name });
}
