import { IconAdjustmentsHorizontal } from '@tabler/icons-react';
import { Button, Popover } from 'antd';
import { Fragment, type ReactNode, useEffect, useRef, useState } from 'react';

interface Control {
  readonly name: string;
  /** Pixels that it takes in full, and where it can do with less, in short. */
  readonly width: number;
  readonly short?: number;
  readonly show: (inShort: boolean) => ReactNode;
}

interface PaneBarProps {
  readonly title: string;
  /** From the first needed to the last: where there is no room they are shown in short, and those that still do not fit fold into a menu. */
  readonly controls: readonly Control[];
  /** Always to be seen. */
  readonly always?: ReactNode;
}

/** What title and the controls that are always there take, pixels; the menu, where there is one; and the gap after each control. */
const [FRAME, MENU, GAP] = [84, 32, 8];

/** The bar over a pane. */
export function PaneBar({ title, controls, always }: PaneBarProps) {
  const bar = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(Infinity);
  useEffect(() => {
    if (!bar.current) return;
    const observer = new ResizeObserver(([entry]) => setWidth(entry.contentRect.width));
    observer.observe(bar.current);
    return () => observer.disconnect();
  }, []);
  const room = width - FRAME;
  const sizeOf = ({ width: full, short = full }: Control, isShort: boolean) => (isShort ? short : full) + GAP;
  const sizeOfAll = (isShort: boolean) =>
    controls.reduce((sum, control) => sum + sizeOf(control, isShort), 0);
  const inShort = sizeOfAll(false) > room;
  // The menu takes no room where nothing has to fold into it.
  let left = sizeOfAll(inShort) > room ? room - MENU : room;
  const shown = controls.filter((control) => {
    left -= sizeOf(control, inShort);
    return left >= 0;
  });
  const folded = controls.slice(shown.length);
  const keyed = (list: readonly Control[], short: boolean) =>
    list.map(({ name, show }) => <Fragment key={name}>{show(short)}</Fragment>);
  return (
    <div className="pane-bar" ref={bar}>
      <h2>{title}</h2>
      {keyed(shown, inShort)}
      {folded.length > 0 && (
        <Popover
          trigger="click"
          placement="bottomLeft"
          content={<div className="pane-menu">{keyed(folded, false)}</div>}
        >
          <Button
            size="small"
            icon={<IconAdjustmentsHorizontal size={15} />}
            aria-label={`${title}: more settings`}
          />
        </Popover>
      )}
      <span className="pane-gap" />
      {always}
    </div>
  );
}
