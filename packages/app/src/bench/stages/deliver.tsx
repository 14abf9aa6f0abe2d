import { lazy } from 'react';
import type { StageView } from './stage.ts';

const DeliverView = lazy(() =>
  import('../../deliver/DeliverView.tsx').then((module) => ({ default: module.DeliverView })),
);

export const deliver: StageView = {
  name: 'deliver',
  label: 'Deliver',
  tools: [],
  commands: [],
  Panel: () => (
    <p className="rail-text">The model with its UVs, and the layout as a picture to paint over.</p>
  ),
  View: DeliverView,
  mark: () => '',
};
