import { UP_AXES } from '@blunt-hem/core/document/fields';
import { Option } from 'commander';
import { optionOf, outOption } from '../options.ts';
import type { HemCommand } from './command.ts';

const TOLERANCE = 'distance at which points count as one, as a part of the mean length of border edges';

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
            '{"edges": [[a, b], …]}, zero-based vertices as in the file',
          ).makeOptionMandatory(),
        )
        .addOption(outOption())
        .addOption(optionOf('unfold', 'method', 'how shells are laid flat'))
        .option(
          '--pins <file>',
          '{"pins": [{"vertex": a, "uv": [u, v]}, …], "stays": [{"vertices": [a, b, …]}, …]}; where a seam runs through, add "face" for the side that is meant',
        )
        .option('--smoothed', 'flatten the subdivision surface of which the model is the cage')
        .option(
          '--keep-place',
          'start from the UVs in the file: where they break are seams too, and shells come out where they lie, as turned and as large',
        )
        .addOption(
          new Option('--up <axis>', 'which axis of the file points up').choices(UP_AXES).default('y'),
        )
        .option('--relax', 'relax the shells after unfolding')
        .addOption(optionOf('relax', 'balance', 'from 0, angles alone, to 1, area above all'))
        .addOption(optionOf('relax', 'seconds', 'stop relaxing after so long and keep the best so far'))
        .option('--cuts', 'try for each shell that stretches too much which single cut helps it most')
        .option('--pack', 'pack the shells into the tile')
        .addOption(optionOf('pack', 'size', 'texture size, pixels'))
        .addOption(optionOf('pack', 'padding', 'least gap between shells, pixels')),
    load: () => import('./unfold.ts'),
  },
  {
    name: 'measure',
    summary: 'the figures of the UVs a file already has',
    shape: () => undefined,
    load: () => import('./measure.ts'),
  },
  {
    name: 'check',
    summary: 'the health check: findings, and what the model is made of',
    shape: (command) => command.addOption(optionOf('repair-safe', 'tolerance', TOLERANCE)),
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
        .addOption(optionOf('repair-safe', 'tolerance', TOLERANCE)),
    load: () => import('./repair.ts'),
  },
];
