import { describe, expect, it } from 'vitest';
import { documentWithMaterials } from '../src/formats/documentWithMaterials.ts';
import { gltfIo } from '../src/formats/gltfIo.ts';
import { readModel } from '../src/formats/readModel.ts';
import { readMtl } from '../src/formats/readMtl.ts';
import { writeGlb } from '../src/formats/writeGlb.ts';
import { writeObj } from '../src/formats/writeObj.ts';
import type { Model } from '../src/mesh/model.ts';
import { png, texturedGlb } from './texturedGlb.ts';

const bytesOf = (text: string) => new TextEncoder().encode(text);

const OBJ = bytesOf(
  'mtllib skin.mtl\nv 0 0 0\nv 1 0 0\nv 0 1 0\nusemtl Moss\nf 1 2 3\nusemtl Bare\nf 1 3 2\n',
);

/** Materials and images that a GLB holds. */
async function inGlb(glb: Uint8Array) {
  const root = (await gltfIo().readBinary(glb)).getRoot();
  return { materials: root.listMaterials(), textures: root.listTextures() };
}

const uvOf = ({ mesh }: Model) => [new Float64Array(2 * mesh.cornerVertex.length)];

// Wavefront material statements as in the published description of the format (MTL, 1995; options of images from memory).
describe('a Wavefront library', () => {
  it('gives colours, and images behind any options, with spaces in their names', () => {
    const mtl = bytesOf(
      [
        '# skin',
        'newmtl Moss',
        'Ns 10',
        'Kd 0.25 0.5 0.125',
        'map_Kd -s 2 2 -clamp on maps\\moss colour.png',
        'map_Bump -bm 0.4 moss height.png',
        'norm moss_n.png',
        'newmtl Wrong',
        'Kd 9 9',
      ].join('\n'),
    );
    expect([...readMtl(mtl)]).toEqual([
      [
        'Moss',
        {
          colour: [0.25, 0.5, 0.125],
          images: { colour: 'maps\\moss colour.png', height: 'moss height.png', normal: 'moss_n.png' },
        },
      ],
      ['Wrong', { images: {} }],
    ]);
  });

  it('puts colours and images into the model, which go byte for byte into the GLB made of it', async () => {
    const mtl = bytesOf('newmtl Moss\nKd 0.25 0.5 0.125\nmap_Kd maps/moss.png\nnorm lost.png\n');
    const image = png(77);
    const companions = new Map([
      ['skin.mtl', mtl],
      ['moss.png', image],
    ]);
    const model = await readModel(OBJ, 'a.obj', companions);
    expect(model.materials).toEqual([
      { name: 'Moss', colour: [0.25, 0.5, 0.125], images: { colour: 0, normal: 1 } },
      { name: 'Bare' },
    ]);
    expect(model.images).toEqual([
      { name: 'moss.png', mimeType: 'image/png', bytes: image },
      { name: 'lost.png', mimeType: 'image/png' },
    ]);
    const { materials, textures } = await inGlb(await writeGlb(model, uvOf(model)));
    expect(materials.map((material) => material.getName())).toEqual(['Moss', 'Bare']);
    expect(materials[0].getBaseColorFactor()).toEqual([0.25, 0.5, 0.125, 1]);
    expect(textures).toHaveLength(1);
    expect(textures[0].getImage()).toEqual(Uint8Array.from(image));
    expect(materials[0].getBaseColorTexture()).toBe(textures[0]);
    // The OBJ itself is repeated, and says the same of its materials.
    const again = await readModel(writeObj(model, uvOf(model)[0]), 'a.obj', companions);
    expect([again.materials, again.images]).toEqual([model.materials, model.images]);
    const alone = await readModel(OBJ, 'a.obj');
    expect([alone.materials, alone.images]).toEqual([[{ name: 'Moss' }, { name: 'Bare' }], []]);
  });
});

describe('an image', () => {
  it('is what its bytes are, whatever its name, and one that is none stays out of the GLB', async () => {
    const mtl = bytesOf('newmtl Moss\nmap_Kd moss.jpg\nnorm broken.png\nnewmtl Bare\nmap_Kd\nmap_Ke -s 1\n');
    const companions = new Map([
      ['skin.mtl', mtl],
      ['moss.jpg', png(3)],
      ['broken.png', bytesOf('not a picture')],
    ]);
    const model = await readModel(OBJ, 'a.obj', companions);
    expect(model.images.map(({ name, mimeType }) => [name, mimeType])).toEqual([
      ['moss.jpg', 'image/png'],
      ['broken.png', ''],
    ]);
    const { textures } = await inGlb(await writeGlb(model, uvOf(model)));
    expect(textures.map((texture) => texture.getMimeType())).toEqual(['image/png']);
  });
});

describe('a GLB', () => {
  it('tells of colour and images, and of two materials of one name as two', async () => {
    const model = await readModel(await texturedGlb(), 'scraps.glb');
    expect(model.materials).toEqual([
      { name: 'Skin', colour: [0.5, 0.25, 0.125], inFile: 1 },
      { name: 'Skin', colour: [1, 1, 1], images: { colour: 0, normal: 1 }, inFile: 0 },
    ]);
    expect(model.images.map(({ name }) => name)).toEqual(['colour map', 'normal map', 'unused']);
  });

  it.each([false, true])(
    'keeps images byte for byte and all that materials say; mesh altered: %s',
    async (altered) => {
      const model = { ...(await readModel(await texturedGlb(), 'scraps.glb')), altered };
      const { materials, textures } = await inGlb(await writeGlb(model, uvOf(model)));
      const skin = materials.find((material) => material.getBaseColorTexture());
      expect(skin?.getName()).toBe('Skin');
      expect(skin?.getBaseColorTexture()?.getImage()).toEqual(Uint8Array.from(png(10)));
      expect(skin?.getNormalTexture()?.getImage()).toEqual(Uint8Array.from(png(128)));
      expect([skin?.getRoughnessFactor(), skin?.getDoubleSided()]).toEqual([0.3, true]);
      expect(skin?.getExtension('KHR_materials_clearcoat')).toMatchObject({});
      // What no face has goes with an altered mesh, and stays in a file that is repeated.
      expect(textures).toHaveLength(altered ? 2 : 3);
      expect(materials).toHaveLength(altered ? 2 : 3);
    },
  );

  it('composed anew holds one buffer, no accessor of the old mesh, and the new names of materials', async () => {
    const model = await readModel(await texturedGlb(), 'scraps.glb');
    const renamed = model.materials.map((material, i) => ({ ...material, name: `M${i}` }));
    const { document, materials } = await documentWithMaterials({
      ...model,
      materials: renamed,
      altered: true,
    });
    const root = document.getRoot();
    expect(materials.map((material) => material.getName())).toEqual(['M0', 'M1']);
    expect([root.listAccessors(), root.listMeshes(), root.listNodes(), root.listScenes()]).toEqual([
      [],
      [],
      [],
      [],
    ]);
    expect(root.listBuffers()).toHaveLength(1);
  });
});
