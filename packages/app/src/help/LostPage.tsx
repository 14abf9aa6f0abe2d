import { Link } from 'react-router';
import './help.css';

export function LostPage() {
  return (
    <main className="help">
      <h1>There is nothing here</h1>
      <p>
        Your projects are on the <Link to="/">Rack</Link>.
      </p>
    </main>
  );
}
