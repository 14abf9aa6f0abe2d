import { lazyPart } from '../../loading/lazyPart.tsx';
import type { StageView } from './stage.ts';

const DeliverView = lazyPart(async () => (await import('../../deliver/DeliverView.tsx')).DeliverView);

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
