import { IconDownload, IconTrash } from '@tabler/icons-react';
import { Dropdown } from 'antd';
import { type ReactElement, useState } from 'react';

interface CardMenuProps {
  readonly onExport: () => void;
  readonly onTakeOff: () => void;
  readonly children: ReactElement;
}

/** What else can be done with a project; open from the start, for it is loaded when it is asked for. */
export function CardMenu({ onExport, onTakeOff, children }: CardMenuProps) {
  const [open, setOpen] = useState(true);
  return (
    <Dropdown
      trigger={['click']}
      open={open}
      onOpenChange={setOpen}
      menu={{
        items: [
          {
            key: 'export',
            icon: <IconDownload size={15} />,
            label: 'Export project file',
            onClick: onExport,
          },
          { key: 'off', icon: <IconTrash size={15} />, label: 'Take off the Rack', onClick: onTakeOff },
        ],
      }}
    >
      {children}
    </Dropdown>
  );
}
