import { IconDownload, IconFirstAidKit, IconTrash } from '@tabler/icons-react';
import { Dropdown } from 'antd';
import { type ReactElement, useState } from 'react';

interface CardMenuProps {
  readonly damaged: boolean;
  readonly onRescue: () => void;
  readonly onExport: () => void;
  readonly onTakeOff: () => void;
  readonly children: ReactElement;
}

/** What else can be done with a project; open from the start, for it is loaded when it is asked for. */
export function CardMenu({ damaged, onRescue, onExport, onTakeOff, children }: CardMenuProps) {
  const [open, setOpen] = useState(true);
  const rescue = {
    key: 'rescue',
    icon: <IconFirstAidKit size={15} />,
    label: 'Open what is whole',
    onClick: onRescue,
  };
  return (
    <Dropdown
      trigger={['click']}
      open={open}
      onOpenChange={setOpen}
      menu={{
        items: [
          ...(damaged ? [rescue] : []),
          {
            key: 'export',
            icon: <IconDownload size={15} />,
            label: damaged ? 'Export what is whole' : 'Export project file',
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
