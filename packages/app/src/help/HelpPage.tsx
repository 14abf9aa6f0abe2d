import { useEffect } from 'react';
import { Link, useLocation } from 'react-router';
import { HelpContent } from './HelpContent.tsx';

/** Help as a page of its own, as one comes to it from the Rack. */
export function HelpPage() {
  const { hash } = useLocation();
  useEffect(() => {
    if (hash) document.getElementById(hash.slice(1))?.scrollIntoView();
  }, [hash]);
  return (
    <main className="help">
      <p>
        <Link to="/">← Rack</Link>
      </p>
      <h1>How Blunt Hem is held</h1>
      <HelpContent />
    </main>
  );
}
