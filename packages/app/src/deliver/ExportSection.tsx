import { WRITTEN_FORMATS, type WrittenEnding } from '@blunt-hem/core/formats/formats';
import type { AnswerOf } from '@blunt-hem/core/questions/index';
import { IconBox, IconShape } from '@tabler/icons-react';
import { Button, Select } from 'antd';
import { saveAs } from 'file-saver';
import { useState } from 'react';
import { useAsked } from '../bench/useAsked.ts';
import { useBench } from '../store/bench.ts';
import { ask } from '../store/worker.ts';
import { blobOf } from './blobOf.ts';

/** The model as a file: of which parts, in which format, and what that format cannot hold. */
export function ExportSection({
  writing,
  saving,
}: {
  /** What is being written now. */
  readonly writing: string | undefined;
  saving(what: string, work: () => Promise<void>): Promise<void>;
}) {
  const parts = useBench((s) => s.model?.parts[0]);
  const repeats = useBench((s) => s.model?.repeats);
  const sets = useBench((s) => s.uvSets);
  const current = useBench((s) => s.uvSets.find(({ id }) => id === s.currentUv)?.name);
  const [losses, setLosses] = useState<AnswerOf<'losses'>>();
  const [chosen, setChosen] = useState<readonly number[]>([]);
  useAsked(true, 'losses', { composed: chosen.length > 0 }, [sets.length, repeats], setLosses);
  const save = (kind: WrittenEnding) =>
    saving(kind, async () => {
      const some = chosen.length > 0 && parts ? { parts: chosen, partKind: parts.kind } : {};
      const file = await ask('export', { kind, ...some });
      if (file) saveAs(blobOf(file.bytes), file.fileName);
    });
  return (
    <>
      {parts && parts.names.length > 1 && (
        <Select<number[]>
          mode="multiple"
          size="small"
          allowClear
          maxTagCount={3}
          className="deliver-parts"
          aria-label="Which parts are written"
          placeholder={`All ${parts.names.length} parts`}
          optionFilterProp="label"
          value={[...chosen]}
          options={parts.names.map((name, value) => ({ value, label: name || `Part ${value + 1}` }))}
          onChange={setChosen}
        />
      )}
      <div className="deliver-row">
        {WRITTEN_FORMATS.map(({ name, endings: [ending] }, i) => (
          <Button
            key={name}
            type={i === 0 ? 'primary' : 'default'}
            icon={i === 0 ? <IconShape size={16} /> : <IconBox size={16} />}
            loading={writing === ending}
            onClick={() => void save(ending)}
          >
            Export {name}
          </Button>
        ))}
      </div>
      <dl className="deliver-losses" aria-label="What each format leaves out">
        {WRITTEN_FORMATS.map(({ name, endings: [ending], sets: held }) => (
          <div key={name}>
            <dt>{name}</dt>
            <dd>
              {sets.length > 1 &&
                (held === 'all' ? `all ${sets.length} UV sets; ` : `UV set “${current}” alone; `)}
              {losses === undefined
                ? 'being looked at…'
                : losses[ending].length === 0
                  ? 'holds all there is'
                  : `cannot hold ${losses[ending].join(', ')}`}
            </dd>
          </div>
        ))}
      </dl>
    </>
  );
}
