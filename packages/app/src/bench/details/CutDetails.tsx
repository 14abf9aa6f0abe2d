import { Collapse } from 'antd';
import { useBench } from '../../store/bench.ts';
import { CopiesPanel } from './CopiesPanel.tsx';
import { PatchesPanel } from './PatchesPanel.tsx';
import { PickChanges } from './PickChanges.tsx';
import { ProposalPanel } from './ProposalPanel.tsx';
import { RulesPanel } from './RulesPanel.tsx';
import { StraightenPanel } from './StraightenPanel.tsx';
import { SymmetryPanel } from './SymmetryPanel.tsx';

/** What helps to choose seams: what is picked made larger or smaller, symmetry, rules, and proposals. */
export function CutDetails() {
  return (
    <>
      <StraightenPanel />
      <Collapse
        accordion
        destroyOnHidden
        ghost
        size="small"
        className="cut-details"
        items={[
          { key: 'picks', label: 'What is picked', children: <PickChanges /> },
          { key: 'symmetry', label: <SymmetryTitle />, children: <SymmetryPanel /> },
          { key: 'patches', label: 'Patches', children: <PatchesPanel /> },
          { key: 'copies', label: 'Copies', children: <CopiesPanel /> },
          { key: 'rules', label: 'Seams by rule', children: <RulesPanel /> },
          { key: 'proposal', label: 'Proposed seams', children: <ProposalPanel /> },
        ]}
      />
    </>
  );
}

function SymmetryTitle() {
  const on = useBench((s) => s.symmetry !== undefined);
  return <>Symmetry{on ? ': on' : ''}</>;
}
