import { plural } from '@blunt-hem/core/plural';
import {
  type Icon,
  IconCube,
  IconEye,
  IconEyeOff,
  IconFocus2,
  IconPalette,
  IconPencil,
  IconPuzzle,
  IconStack2,
  IconWaveSine,
} from '@tabler/icons-react';
import { Button, Input, Segmented, Table, Tooltip } from 'antd';
import { type MouseEvent, useMemo, useState } from 'react';
import { perform } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { select, selectNothing } from '../../store/select.ts';
import type { PartList } from '../../worker/protocol.ts';
import { isolate } from '../commands/showing.ts';
import { PartDrag, PartName } from './PartDrag.tsx';
import './parts.css';

const KINDS: Record<
  PartList['kind'],
  { readonly name: string; readonly icon: Icon; readonly words: readonly [one: string, many: string] }
> = {
  object: { name: 'Objects', icon: IconCube, words: ['object', 'objects'] },
  group: { name: 'Groups', icon: IconStack2, words: ['group', 'groups'] },
  material: { name: 'Materials', icon: IconPalette, words: ['material', 'materials'] },
  smoothing: { name: 'Smoothing groups', icon: IconWaveSine, words: ['smoothing group', 'smoothing groups'] },
  piece: { name: 'Loose pieces', icon: IconPuzzle, words: ['loose piece', 'loose pieces'] },
};

type Named = 'object' | 'group' | 'material';
const isNamed = (kind: PartList['kind']): kind is Named => kind !== 'piece' && kind !== 'smoothing';

/** Gives parts one name; several become one part. */
const nameParts = (by: PartList['kind'], parts: readonly number[], name: string): void => {
  if (isNamed(by)) void perform('name-parts', { by, parts, name });
};

interface PartRow {
  readonly part: number;
  readonly name: string;
  readonly faces: number;
  readonly share: number;
  readonly shown: boolean;
}

/** The parts of a model by object, group, material or loose piece: shown, hidden, picked, renamed. */
export function PartsList() {
  const model = useBench((s) => s.model);
  const hidden = useBench((s) => s.hidden);
  const [kind, setKind] = useState<PartList['kind']>();
  const [picked, setPicked] = useState<ReadonlySet<number>>(new Set());
  const list = model?.parts.find((p) => p.kind === kind) ?? model?.parts[0];
  const rows = useMemo(() => (list ? rowsOf(list, hidden) : []), [list, hidden]);
  if (!model || !list) return null;

  const pick = (part: number, event: MouseEvent) => {
    const next = event.shiftKey ? new Set([...picked, part]) : new Set([part]);
    setPicked(next);
    const faces = Array.from(list.facePart.keys()).filter((f) => next.has(list.facePart[f]));
    // Where another has the same name, it does not tell which is meant.
    const name =
      next.size === 1 && list.names.filter((each) => each === list.names[part]).length === 1
        ? list.names[part]
        : '';
    selectNothing();
    select('faces', faces, 'only', name ? { of: list.kind, name } : undefined);
  };
  return (
    <div className="parts">
      {model.parts.length > 1 && (
        <Segmented
          size="small"
          block
          aria-label="Parts by"
          value={list.kind}
          options={model.parts.map((p) => {
            const { icon: Icon, name } = KINDS[p.kind];
            const title = `${name}: ${p.names.length.toLocaleString('en-GB')}`;
            return { value: p.kind, title, icon: <Icon size={15} aria-label={title} /> };
          })}
          onChange={(value) => {
            setKind(value);
            setPicked(new Set());
          }}
        />
      )}
      <p className="rail-text">{plural(rows.length, ...KINDS[list.kind].words)}</p>
      <PartDrag
        names={list.names}
        onJoin={(part, other) => nameParts(list.kind, [part, other], list.names[part] || 'Unnamed')}
      >
        <Table<PartRow>
          virtual
          size="small"
          showHeader={false}
          pagination={false}
          rowKey="part"
          scroll={{ y: Math.min(300, 30 * rows.length), x: 154 }}
          dataSource={rows}
          rowClassName={({ part }) => (picked.has(part) ? 'row-chosen' : '')}
          onRow={({ part }) => ({ onClick: (event) => pick(part, event) })}
          columns={[
            {
              width: 26,
              render: (_, { part, name, shown }) => (
                <Button
                  type="text"
                  size="small"
                  icon={shown ? <IconEye size={14} /> : <IconEyeOff size={14} />}
                  aria-label={`${shown ? 'Hide' : 'Show'} ${name || 'Unnamed'}`}
                  aria-pressed={!shown}
                  onClick={(event) => {
                    event.stopPropagation();
                    void perform('hide', { by: list.kind, parts: [part], how: shown ? 'hide' : 'show' });
                  }}
                />
              ),
            },
            {
              ellipsis: true,
              render: (_, { part, name, faces, share }) => (
                <Tooltip
                  placement="right"
                  title={`${name || 'Unnamed'}: ${faces.toLocaleString('en-GB')} faces, ${percent(share)}`}
                >
                  <PartName part={part} name={name || 'Unnamed'} canMove={isNamed(list.kind)} />
                </Tooltip>
              ),
            },
            {
              width: 38,
              align: 'right',
              render: (_, { faces }) => <span className="parts-count">{short(faces)}</span>,
            },
          ]}
        />
      </PartDrag>
      <div className="parts-acts">
        <Tooltip title="Show only what is picked, or everything again (G)">
          <Button
            size="small"
            icon={<IconFocus2 size={14} />}
            onClick={() => isolate.act(useBench.getState())}
          >
            Isolate
          </Button>
        </Tooltip>
        {picked.size > 0 && isNamed(list.kind) && (
          <Rename
            key={[...picked].join()}
            list={list}
            picked={[...picked]}
            onDone={() => setPicked(new Set())}
          />
        )}
      </div>
    </div>
  );
}

interface RenameProps {
  readonly list: PartList;
  readonly picked: readonly number[];
  readonly onDone: () => void;
}

/** Another name for one part, or one name for several. */
function Rename({ list, picked, onDone }: RenameProps) {
  const [name, setName] = useState<string>();
  if (name === undefined) {
    return (
      <Button size="small" icon={<IconPencil size={14} />} onClick={() => setName(list.names[picked[0]])}>
        {picked.length === 1 ? 'Rename' : 'Join'}
      </Button>
    );
  }
  return (
    <Input
      size="small"
      autoFocus
      aria-label="Name"
      value={name}
      onChange={(event) => setName(event.target.value)}
      onBlur={() => setName(undefined)}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Escape') setName(undefined);
      }}
      onPressEnter={() => {
        if (name.trim()) nameParts(list.kind, picked, name.trim());
        onDone();
      }}
    />
  );
}

function rowsOf({ facePart, names, faces }: PartList, hidden: Uint8Array): PartRow[] {
  const shown = new Uint8Array(names.length);
  facePart.forEach((part, f) => {
    if (!hidden[f]) shown[part] = 1;
  });
  return names.map((name, part) => ({
    part,
    name,
    faces: faces[part],
    share: faces[part] / Math.max(1, facePart.length),
    shown: shown[part] === 1,
  }));
}

const percent = (share: number): string => `${(100 * share).toFixed(share < 0.1 ? 1 : 0)} % of the model`;
const short = (n: number): string => (n < 10_000 ? n.toLocaleString('en-GB') : `${Math.round(n / 1000)} k`);
