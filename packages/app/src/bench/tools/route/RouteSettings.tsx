import { Checkbox } from 'antd';
import { useBench } from '../../../store/bench.ts';
import { parameterOf } from '../../parameterOf.ts';
import { RailSlider } from '../../rail/RailSlider.tsx';
import { through } from './drawing.ts';

const { range } = parameterOf('route', 'hidden');

/** How hidden it runs, and whether along seams. */
export function RouteSettings() {
  const hidden = useBench((s) => s.routeHidden);
  const follows = useBench((s) => s.routeFollows);
  const again = () => {
    const { route: drawn } = useBench.getState();
    if (drawn) void through(drawn.points);
  };
  return (
    <>
      <RailSlider
        left="Short"
        right="Hidden"
        {...range}
        step={0.05}
        value={hidden}
        onChange={(value) => useBench.setState({ routeHidden: value })}
        onChangeComplete={again}
        label="From the shortest way to the most hidden"
      />
      <Checkbox
        className="rail-check"
        checked={follows}
        onChange={(event) => {
          useBench.setState({ routeFollows: event.target.checked });
          again();
        }}
      >
        Follow seams
      </Checkbox>
    </>
  );
}
