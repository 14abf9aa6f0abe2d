import { FORMATS } from '@blunt-hem/core/formats/formats';
import { IconDownload, IconTriangles, IconWalk } from '@tabler/icons-react';
import { Link } from 'react-router';

/** What one can begin with. */
export function RackInvitation({
  open,
  addDense,
}: {
  /** Has files chosen. */
  readonly open: () => void;
  readonly addDense: () => void;
}) {
  return (
    <div className="rack-invitation">
      <button type="button" className="rack-drop" onClick={open}>
        <IconDownload size={30} aria-hidden />
        <strong>Drop a model anywhere here</strong>
        <span>
          {FORMATS.map(({ name }) => name).join(', ')}, a project file or a backup; with a glTF or an OBJ the
          files it names. The file itself is never altered.
        </span>
      </button>
      <Link to="/help#walk" className="rack-walk">
        <IconWalk size={30} aria-hidden />
        <strong>Ten minutes with the toad</strong>
        <span>A walk through the loop on the demo: look, cut, relax, arrange, deliver.</span>
      </Link>
      <button type="button" className="rack-walk" onClick={addDense}>
        <IconTriangles size={30} aria-hidden />
        <strong>Bring the mud snail</strong>
        <span>A sculpt of 217 000 triangles without a single loop, to try seams on.</span>
      </button>
    </div>
  );
}
