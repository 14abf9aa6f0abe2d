import { Link, useLocation, useNavigate } from 'react-router';
import { keyTable } from '../bench/keyTable.ts';
import './help.css';

const WORDS: readonly (readonly [string, string])[] = [
  [
    'Rack',
    'Your projects, kept in this browser alone. Back it up into one file now and then; dropped on a Rack, the file brings everything back.',
  ],
  [
    'Bench',
    'Where one project is worked on: the Model on the left, the Board with the flat shells on the right.',
  ],
  ['Seam', 'A chain of cut edges. UVs break at seams and nowhere else.'],
  ['Shell', 'A piece of the model as it lies flat, bounded by seams and open borders.'],
  ['Stretch', 'How far the flat shell departs from the surface. L2 is 1 where nothing stretches.'],
  [
    'Gingham',
    'The default checker: two-tone weave, warp and weft tinted differently so that direction shows.',
  ],
];

export function HelpPage() {
  const navigate = useNavigate();
  const cameFromHere = useLocation().key !== 'default';
  return (
    <main className="help">
      <p>
        {cameFromHere ? (
          <button type="button" className="help-back" onClick={() => void navigate(-1)}>
            ← Back
          </button>
        ) : (
          <Link to="/">← Rack</Link>
        )}
      </p>
      <h1>How Blunt Hem is held</h1>
      <p>
        The loop is cut, unfold, look, correct. Double-click an edge for its loop, press A to cut it, and the
        shells beside it lie flat at once. Look at the checker, and cut or relax where the squares are not
        square.
      </p>
      <h2>Keys</h2>
      <table>
        <tbody>
          {keyTable().map(([keys, act]) => (
            <tr key={keys}>
              <td>
                <kbd>{keys}</kbd>
              </td>
              <td>{act}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <h2>Words</h2>
      <table>
        <tbody>
          {WORDS.map(([word, meaning]) => (
            <tr key={word}>
              <td>{word}</td>
              <td>{meaning}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </main>
  );
}
