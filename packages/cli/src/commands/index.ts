import { UP_AXES } from '@blunt-hem/core/document/fields';
import { Option } from 'commander';
import {
  askedOption,
  choicesOf,
  direction,
  fourNumbers,
  optionOf,
  outOption,
  partOfSize,
  pictureOutOption,
  pixels,
  seamsOutOption,
  textureSize,
  threadCount,
  threeNumbers,
  tileCount,
  vertexList,
} from '../options.ts';
import type { HemCommand } from './command.ts';

const SEAMS = '{"edges": [[a, b], …]}, zero-based vertices as in the file';

const seamsOption = (): Option => new Option('--seams <file>', SEAMS).makeOptionMandatory();

const facesOption = (what: string): Option =>
  new Option('--faces <file>', `${what}: {"faces": [a, b, …]}, zero-based as in the file`);

const directionOption = (flags: string, what: string): Option =>
  new Option(flags, `${what}: x, y, z, −x (as -x), or three numbers`).argParser(direction);

const setOption = (): Option =>
  new Option('--set <name>', 'the UV set that is meant, by its name; the first when absent');
const upOption = (): Option =>
  new Option('--up <axis>', 'which axis of the file points up').choices(UP_AXES).default('y');

const sizeOption = (): Option =>
  new Option(
    '--size <pixels>',
    'texture size when packing: 2048, which is the usual, or 4096x2048 where it is not square',
  ).argParser(textureSize);
const paddingOption = (): Option =>
  new Option('--padding <pixels>', 'least gap between shells when packing, 8 as the usual').argParser(pixels);

const jobsOption = (): Option =>
  new Option(
    '--jobs <n>',
    'how many threads work at it, as many as there are cores when absent: what comes out is the same',
  ).argParser(threadCount);

/** Every command. */
export const COMMANDS: readonly HemCommand[] = [
  {
    name: 'info',
    summary: 'vertices, faces, parts, UV sets, shells and borders',
    shape: () => undefined,
    load: () => import('./info.ts'),
  },
  {
    name: 'unfold',
    summary: 'cuts along seams, lays the shells flat and writes the model with its UVs',
    shape: (command) =>
      command
        .addOption(
          new Option(
            '--seams <file>',
            `${SEAMS}; without it the file’s own: its borders, and where its UVs break`,
          ).conflicts('propose'),
        )
        .addOption(
          new Option(
            '--propose <choice>',
            'cut along proposed seams: few clean shells, or a quick rough cut',
          ).choices(choicesOf('proposal', 'preset')),
        )
        .addOption(outOption())
        .addOption(optionOf('unfold', 'method'))
        .option(
          '--pins <file>',
          '{"pins": [{"vertex": a, "uv": [u, v]}, …], "stays": [{"vertices": [a, b, …]}, …]}; where a seam runs through, add "face" for the side that is meant',
        )
        .option('--smoothed', 'flatten the subdivision surface of which the model is the cage')
        .option(
          '--keep-place',
          'start from the UVs in the file: where they break are seams too, and shells come out where they lie, as turned and as large',
        )
        .addOption(upOption())
        .option('--relax', 'relax the shells after unfolding')
        .addOption(optionOf('relax', 'balance'))
        .addOption(optionOf('relax', 'seconds'))
        .option('--cuts', 'try for each shell that stretches too much which single cut helps it most')
        .option('--pack', 'pack the shells into the tile')
        .addOption(sizeOption())
        .addOption(paddingOption()),
    load: () => import('./unfold.ts'),
  },
  {
    name: 'relax',
    summary: 'evens out the stretch of the UVs a file has, and writes the model',
    shape: (command) =>
      command
        .addOption(facesOption('loosen these alone'))
        .addOption(optionOf('relax', 'balance'))
        .addOption(optionOf('relax', 'seconds'))
        .addOption(setOption())
        .addOption(outOption()),
    load: () => import('./relax.ts'),
  },
  {
    name: 'pack',
    summary: 'packs the UVs a file has into tiles, better the longer it may take, and writes the model',
    shape: (command) =>
      command
        .addOption(sizeOption())
        .addOption(paddingOption())
        .addOption(optionOf('pack', 'turning'))
        .addOption(optionOf('pack', 'density').conflicts('tiles'))
        .addOption(
          new Option('--tiles <n>', 'over so many tiles, evenly unless --spread says otherwise').argParser(
            tileCount,
          ),
        )
        .addOption(optionOf('pack', 'spread').default(undefined))
        .addOption(optionOf('pack', 'near'))
        .addOption(optionOf('pack', 'start'))
        .addOption(
          new Option(
            '--region <box>',
            'left, low, right and high of what is filled instead of the tiles, in heights of a tile, with commas between: 0,0,0.5,1',
          )
            .argParser(fourNumbers)
            .conflicts(['tiles', 'spread']),
        )
        .addOption(
          new Option(
            '--weights <file>',
            'what is to be finer than the rest: {"weights": [{"part": "Head", "times": 2}, …]}, by part, material or faces',
          ),
        )
        .addOption(optionOf('pack', 'steps').default(undefined).conflicts('seconds'))
        .addOption(optionOf('pack', 'seconds'))
        .addOption(optionOf('pack', 'seed'))
        .addOption(
          new Option(
            '--lock <file>',
            'shells that stay where they are, each by a face: {"faces": [a, b, …]}',
          ),
        )
        .addOption(setOption())
        .addOption(jobsOption())
        .addOption(outOption()),
    load: () => import('./pack.ts'),
  },
  {
    name: 'arrange',
    summary:
      'moves, aligns, fits and packs the shells a file has, and moves points of theirs, by a list of acts',
    shape: (command) =>
      command
        .addOption(
          new Option(
            '--script <file>',
            '{"acts": [{"operation": "align-shells", "params": {"shells": [0, 4], "to": "left"}}, …]}, as docs/operations.md has them; shells each by a face of theirs',
          ).makeOptionMandatory(),
        )
        .addOption(setOption())
        .addOption(outOption()),
    load: () => import('./arrange.ts'),
  },
  {
    name: 'project',
    summary: 'lays faces flat as a plane, cylinder, sphere or box sees them, and writes the model',
    shape: (command) =>
      command
        .addOption(optionOf('project', 'kind').makeOptionMandatory())
        .addOption(facesOption('only these'))
        .addOption(
          directionOption('--axis <direction>', 'of a plane the way it looks from, of a wrap its axis'),
        )
        .addOption(directionOption('--toward <direction>', 'the middle of a wrap, opposite to its seam'))
        .addOption(
          new Option('--origin <x,y,z>', 'where it stands; in the middle of the faces when absent').argParser(
            threeNumbers,
          ),
        )
        .addOption(optionOf('project', 'sweep'))
        .addOption(optionOf('project', 'each'))
        .addOption(upOption())
        .addOption(outOption()),
    load: () => import('./project.ts'),
  },
  {
    name: 'strip',
    summary: 'cuts along seams, lays the shells as straight strips and writes the model',
    shape: (command) => command.addOption(seamsOption()).addOption(outOption()),
    load: () => import('./strip.ts'),
  },
  {
    name: 'propose-seams',
    summary: 'proposes seams for few shells with little stretch, where they hide, and writes them',
    shape: (command) =>
      command
        .addOption(seamsOutOption())
        .addOption(askedOption('proposal', 'preset'))
        .addOption(askedOption('proposal', 'stretch'))
        .addOption(askedOption('proposal', 'hidden'))
        .addOption(askedOption('proposal', 'symmetric'))
        .addOption(askedOption('proposal', 'view'))
        .addOption(askedOption('proposal', 'limbs'))
        .addOption(askedOption('proposal', 'pieces'))
        .addOption(upOption()),
    load: () => import('./proposeSeams.ts'),
  },
  {
    name: 'open',
    summary:
      'opens pieces that cannot lie flat as they are, where it hides, and writes the edges that were cut',
    shape: (command) => command.addOption(seamsOutOption()),
    load: () => import('./open.ts'),
  },
  {
    name: 'route',
    summary: 'a way along edges through some vertices, from shortest to most hidden',
    shape: (command) =>
      command
        .addOption(
          new Option('--through <vertices>', 'zero-based, with commas between')
            .argParser(vertexList)
            .makeOptionMandatory(),
        )
        .addOption(seamsOutOption())
        .addOption(askedOption('route', 'hidden'))
        .addOption(askedOption('route', 'view'))
        .option('--close', 'come back to the first'),
    load: () => import('./route.ts'),
  },
  {
    name: 'ring',
    summary: 'the tightest closed ring of edges round a limb, through a vertex',
    shape: (command) =>
      command
        .addOption(
          new Option('--at <vertex>', 'zero-based')
            .argParser((word) => vertexList(word)[0])
            .makeOptionMandatory(),
        )
        .addOption(seamsOutOption()),
    load: () => import('./ring.ts'),
  },
  {
    name: 'shells',
    summary: 'the shells that seams make, and whether each can lie flat',
    shape: (command) => command.addOption(seamsOption()),
    load: () => import('./shells.ts'),
  },
  {
    name: 'copies',
    summary: 'pieces that are the same shape but for place, turn, mirror and scale',
    shape: () => undefined,
    load: () => import('./copies.ts'),
  },
  {
    name: 'bake',
    summary: 'a map for painters, as PNG, on the UVs a file has: occlusion, curvature, positions and others',
    shape: (command) =>
      command
        .addOption(askedOption('bake', 'map').makeOptionMandatory())
        .addOption(askedOption('bake', 'size'))
        .addOption(askedOption('bake', 'tile'))
        .addOption(askedOption('bake', 'samples'))
        .addOption(askedOption('bake', 'rays'))
        .addOption(askedOption('bake', 'reach'))
        .addOption(askedOption('bake', 'bleed'))
        .option('--from <model>', 'another model from which the map is made, such as the sculpt')
        .addOption(
          new Option(
            '--distance <part>',
            'how far the two lie apart at most, as a part of the size of the model',
          )
            .argParser(partOfSize)
            .default(0.02),
        )
        .addOption(setOption())
        .addOption(jobsOption())
        .addOption(pictureOutOption()),
    load: () => import('./bake.ts'),
  },
  {
    name: 'exposure',
    summary: 'how much is seen of every edge, 0 to 1',
    shape: (command) =>
      command
        .addOption(seamsOutOption('{"edges": [[a, b, seen], …]}'))
        .addOption(askedOption('visibility', 'view'))
        .addOption(upOption()),
    load: () => import('./exposure.ts'),
  },
  {
    name: 'measure',
    summary: 'the figures of the UVs a file already has',
    shape: (command) => command.addOption(setOption()),
    load: () => import('./measure.ts'),
  },
  {
    name: 'check',
    summary: 'the health check: findings, and what the model is made of',
    shape: (command) => command.addOption(optionOf('repair-safe', 'tolerance')),
    load: () => import('./check.ts'),
  },
  {
    name: 'repair',
    summary: 'repairs what changes no shape, and writes the model',
    shape: (command) =>
      command
        // Said aloud, so that nothing else is ever repaired unseen.
        .addOption(new Option('--safe', 'only what changes no shape').makeOptionMandatory())
        .addOption(outOption())
        .addOption(optionOf('repair-safe', 'tolerance')),
    load: () => import('./repair.ts'),
  },
];
