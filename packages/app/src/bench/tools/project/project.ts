import { IconCylinder } from '@tabler/icons-react';
import { useBench } from '../../../store/bench.ts';
import type { Tool } from '../tool.ts';
import { ProjectSettings } from './ProjectSettings.tsx';
import { take } from './taking.ts';

/** Faces laid flat as a plane, cylinder, sphere or box sees them; placed by a handle on the Model, seen before it is taken. */
export const project: Tool = {
  name: 'project',
  label: 'Project',
  help: 'Lay the selected faces, or all, flat as a plane, cylinder, sphere or box sees them; place it by its handle, Enter takes it',
  key: 'j',
  icon: IconCylinder,
  panes: ['model', 'board'],
  keys: {
    enter() {
      void take();
      return true;
    },
  },
  leaveHand: () => useBench.setState({ projectionPreview: undefined }),
  Settings: ProjectSettings,
};
