import { handTable, keyTable } from '../bench/keyTable.ts';
import { WALK, WORDS } from './words.ts';
import './help.css';

/** Everything that Help has to say. */
export function HelpContent() {
  return (
    <div className="help-content">
      <p>
        The loop is cut, unfold, look, correct. Double-click an edge for its loop, press A to cut it, and the
        shells beside it lie flat at once. Look at the checker, and cut or relax where the squares are not
        square.
      </p>
      <h2 id="walk">Ten minutes with the toad</h2>
      <ol>
        {WALK.map(([title, steps]) => (
          <li key={title}>
            <strong>{title}.</strong> {steps}
          </li>
        ))}
      </ol>
      <h2 id="hands">Mouse and pen</h2>
      <Pairs rows={handTable()} />
      <h2 id="keys">Keys</h2>
      <Pairs rows={keyTable()} keys />
      <h2 id="words">Words</h2>
      <Pairs rows={WORDS} />
    </div>
  );
}

interface PairsProps {
  readonly rows: readonly (readonly [string, string])[];
  /** Whether the first of each pair is keys. */
  readonly keys?: boolean;
}

function Pairs({ rows, keys }: PairsProps) {
  return (
    <table>
      <tbody>
        {rows.map(([name, meaning]) => (
          <tr key={name}>
            <td>{keys ? <kbd>{name}</kbd> : name}</td>
            <td>{meaning}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
