import type { Severity } from '@blunt-hem/core/health/check';
import { IconEye } from '@tabler/icons-react';
import { Button } from 'antd';
import type { ReactNode } from 'react';
import './findings.css';

export const SEVERITIES: Record<Severity, { readonly mark: string; readonly words: string }> = {
  spoils: { mark: '▲', words: 'spoils the UVs' },
  hint: { mark: '○', words: 'worth knowing' },
};

/** One thing that was found: how bad, what it does, where, and what can be done. */
export function FindingCard({
  finding: { severity, title, effect },
  show,
  children,
}: {
  readonly finding: { readonly severity: Severity; readonly title: string; readonly effect: string };
  readonly show: () => void;
  /** What can be done, as buttons. */
  readonly children: ReactNode;
}) {
  const { mark, words } = SEVERITIES[severity];
  return (
    <li className="finding" data-severity={severity}>
      <h3>
        <span aria-hidden>{mark}</span> {title}
      </h3>
      <p title={effect}>
        <em>{words}.</em> {effect}
      </p>
      <div className="finding-acts">
        <Button size="small" icon={<IconEye size={14} />} onClick={show}>
          Show
        </Button>
        {children}
      </div>
    </li>
  );
}
