import { isRouteErrorResponse, Link, useRouteError } from 'react-router';
import { Broken } from './lazyPart.tsx';

/** In the place of a page that broke down. */
export function BrokenPage() {
  const error = useRouteError();
  const said = isRouteErrorResponse(error) ? new Error(error.statusText) : error;
  return (
    <main className="bench-state">
      <h1>This page cannot be shown</h1>
      <Broken error={said} onAgain={() => window.location.reload()} />
      <Link to="/">Back to the Rack</Link>
    </main>
  );
}
