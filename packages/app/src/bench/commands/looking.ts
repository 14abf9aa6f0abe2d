import { TARGETS } from '@blunt-hem/core/select/targets/index';
import {
  IconArrowBackUp,
  IconArrowForwardUp,
  IconColorSwatch,
  IconFocus,
  IconFocusCentered,
  IconGridDots,
  IconLayoutBoard,
  IconPointerOff,
  IconStack2,
} from '@tabler/icons-react';
import { hint, stop, travel } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { selectNothing } from '../../store/select.ts';
import { overlayNamed, overlaysOffered } from '../overlays/index.ts';
import type { Overlay } from '../overlays/overlay.ts';
import { frameAsBoard, frameSelection } from '../panes/framing.ts';
import { letGo } from '../panes/usePaneHands.ts';
import type { Command } from './command.ts';

export const frame: Command = {
  name: 'frame',
  label: () => 'Frame the selection',
  help: 'Frame the selection, or everything',
  key: 'f',
  icon: IconFocusCentered,
  act: () => frameSelection(),
};

export const followBoard: Command = {
  name: 'follow-board',
  label: () => 'Look where the Board looks',
  help: 'Bring what the Board shows into view on the Model',
  key: 'shift+f',
  icon: IconFocus,
  act: () => frameAsBoard(),
};

export const checker: Command = {
  name: 'checker',
  label: () => 'Checker',
  help: 'Checker on or off',
  key: 'v',
  icon: IconLayoutBoard,
  pressed: (s) => s.checker,
  act: (s) => useBench.setState({ checker: !s.checker }),
};

export const nextOverlay: Command = {
  name: 'next-overlay',
  label: () => 'Next overlay',
  help: 'Next overlay',
  key: 'b',
  icon: IconColorSwatch,
  act(state) {
    const offered = overlaysOffered(state);
    const next = offered[offered.findIndex(({ name }) => name === state.overlay) + 1];
    useBench.setState({ overlay: next?.name });
  },
};

/** Shows one overlay. */
export const showOverlay = ({ name, title, icon, isOffered, missing }: Overlay): Command => ({
  name: `show-${name}`,
  label: () => title,
  icon,
  pressed: (s) => overlayNamed(s.overlay)?.name === name,
  act(s) {
    if (missing && isOffered?.(s) === false) return hint(missing);
    useBench.setState({ overlay: s.overlay === name ? undefined : name });
  },
});

/** Whether an overlay shows every face by itself, or evens them out over the shell. */
export const byFace: Command = {
  name: 'by-face',
  label: () => 'Face by face',
  help: 'Stretch maps face by face, not evened out',
  icon: IconGridDots,
  pressed: (s) => s.byFace,
  act: (s) => useBench.setState({ byFace: !s.byFace }),
};

export const nextTarget: Command = {
  name: 'next-target',
  label: () => 'What a click picks',
  help: 'Points, edges, faces or shells: what a click picks',
  key: 'shift+q',
  icon: IconStack2,
  act: ({ target }) =>
    useBench.setState({ target: TARGETS[(TARGETS.indexOf(target) + 1) % TARGETS.length], hover: undefined }),
};

export const letGoOrStop: Command = {
  name: 'escape',
  label: () => 'Let go, stop, or select nothing',
  help: 'Let go of what is dragged; stop what is running; otherwise select nothing',
  key: 'escape',
  icon: IconPointerOff,
  act({ running }) {
    if (letGo()) return;
    if (running) void stop();
    else selectNothing();
  },
};

export const undo: Command = {
  name: 'undo',
  label: ({ undoable: [last] }) => (last ? `Undo: ${last}` : 'Nothing to undo'),
  help: 'Undo',
  key: 'mod+z',
  icon: IconArrowBackUp,
  act: () => void travel('undo'),
};

export const redo: Command = {
  name: 'redo',
  label: ({ redoable: [next] }) => (next ? `Redo: ${next}` : 'Nothing to redo'),
  help: 'Redo',
  key: 'mod+shift+z',
  icon: IconArrowForwardUp,
  act: () => void travel('redo'),
};
