import { IconEyeOff, IconFocus2, IconTrash } from '@tabler/icons-react';
import { note, perform } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { facesRequested, selectedFaces, selectNothing } from '../../store/select.ts';
import type { Command } from './command.ts';

const NOTHING = 'Select faces, shells or parts first.';

/** Shows only what is selected; all of the model again when nothing is, or something is hidden already. */
export const isolate: Command = {
  name: 'isolate',
  label: () => 'Isolate',
  help: 'Show only what is selected, or everything again',
  key: 'g',
  icon: IconFocus2,
  act({ hidden }) {
    const faces = selectedFaces();
    const some = hidden.includes(1);
    if (faces.length === 0 && !some) return note(NOTHING);
    void perform(
      'hide',
      faces.length > 0 && !some ? { how: 'isolate', faces: facesRequested() } : { how: 'show' },
    );
  },
};

export const hide: Command = {
  name: 'hide',
  label: () => 'Hide',
  help: 'Hide what is selected',
  key: 'x',
  icon: IconEyeOff,
  async act() {
    if (selectedFaces().length === 0) return note(NOTHING);
    await perform('hide', { how: 'hide', faces: facesRequested() });
    selectNothing();
  },
};

export const deleteFaces: Command = {
  name: 'delete-faces',
  label: () => 'Delete faces',
  help: 'Take the selected faces out of the model',
  key: 'delete',
  icon: IconTrash,
  async act() {
    if (selectedFaces().length === 0) return note(NOTHING);
    if (await perform('delete-faces', { faces: facesRequested() })) useBench.setState({ chosen: new Set() });
  },
};
