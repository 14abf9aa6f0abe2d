import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { openDocument } from '../document/document.ts';
import { setsForFile } from '../document/setsForFile.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { FIRST_TILE } from '../surface/tiles.ts';
import { cube } from '../testing/shapes.ts';
import { endingOf, FORMATS, type Format, formatOf, formatsInWords, WRITTEN_ENDINGS } from './formats.ts';
import { readModel } from './readModel.ts';
import { writeModel } from './writeModel.ts';

const docs = readFileSync(new URL('../../../../docs/formats.md', import.meta.url), 'utf8');

describe('the list of formats', () => {
  it.each(FORMATS.map((format): [string, Format] => [format.name, format]))(
    '%s has endings of its own, is in the docs, and refuses what is none of it in a sentence',
    async (name, format) => {
      for (const ending of format.endings) {
        expect(FORMATS.filter(({ endings }: Format) => endings.includes(ending))).toHaveLength(1);
        expect(formatOf(`some.name.${ending.toUpperCase()}`)).toBe(format);
      }
      expect(docs).toMatch(new RegExp(`\\*\\*[^*]*${name}[^*]*\\*\\*`));
      const noise = Uint8Array.from({ length: 200 }, (_, i) => (i * 7) % 251);
      await expect(readModel(noise, `x.${format.endings[0]}`)).rejects.toThrow(/^x\.\w+: .*\.$/s);
      if (format.write) expect([format.sets, format.repeats]).not.toContain(undefined);
    },
  );

  it('says what can be opened where something cannot', async () => {
    expect(formatsInWords(FORMATS, 'or')).toBe('OBJ, GLB, glTF, PLY or STL');
    await expect(readModel(Uint8Array.of(1), 'cat.jpeg')).rejects.toThrow(
      /models ending in \.jpeg cannot be opened.*Open an OBJ, GLB, glTF, PLY or STL file\./s,
    );
    expect(endingOf('a.b.OBJ')).toBe('obj');
  });

  it.each([...WRITTEN_ENDINGS])(
    'writes a .%s that is read back, on a texture that is not square too',
    async (ending) => {
      const uv = Float64Array.from({ length: 48 }, (_, i) => (i % 11) / 20);
      const document = {
        ...openDocument({ ...modelFromMesh('Cube', cube()), uvSets: [{ name: 'UV', uv }] }),
        tiles: [{ ...FIRST_TILE, width: 4096 }],
      };
      const [main, ...others] = await writeModel(document.model, setsForFile(document), `x.${ending}`);
      const companions = new Map(others.map(({ name, bytes }) => [name, bytes]));
      const back = await readModel(main.bytes, main.name, companions);
      const places = new Set([...back.uvSets[0].uv].map((x) => x.toFixed(5)));
      for (let i = 0; i < 48; i++) expect(places).toContain((i % 2 === 0 ? uv[i] / 2 : uv[i]).toFixed(5));
    },
  );
});
