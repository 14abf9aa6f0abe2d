import { Button } from 'antd';
import { type ComponentType, type JSX, lazy, type ReactNode, Suspense, useMemo, useState } from 'react';
import { ErrorBoundary } from 'react-error-boundary';
import { isNotLoaded } from '../worker/answer.ts';
import { NOT_LOADED } from '../worker/liveness.ts';
import './loading.css';

interface LazyProps<Props extends object> {
  readonly load: () => Promise<ComponentType<Props>>;
  readonly waiting: (props: Props) => ReactNode;
  readonly own: Props;
}

/**
 * A part of the page that is loaded when it is first shown. One that cannot be loaded, or breaks down, says so in its own place, and is
 * tried again when asked: what is beside it stays as it is.
 *
 * @param waiting  shown until it is there
 */
export const lazyPart =
  <Props extends object>(
    load: () => Promise<ComponentType<Props>>,
    waiting: (props: Props) => ReactNode = () => null,
  ): ComponentType<Props> =>
  (props) => <LazyPart load={load} waiting={waiting} own={props} />;

function LazyPart<Props extends object>({ load, waiting, own }: LazyProps<Props>) {
  const [attempt, setAttempt] = useState(0);
  // What could not be loaded once is remembered as that: another try is another component.
  // biome-ignore lint/correctness/useExhaustiveDependencies: anew at every attempt
  const Part = useMemo(() => lazy(async () => ({ default: await load() })), [attempt]);
  return (
    <ErrorBoundary
      resetKeys={[attempt]}
      fallbackRender={({ error }) => <Broken error={error} onAgain={() => setAttempt(attempt + 1)} />}
    >
      <Suspense fallback={waiting(own)}>
        <Part {...(own as Props & JSX.IntrinsicAttributes)} />
      </Suspense>
    </ErrorBoundary>
  );
}

/** Why something is not there, and the way on. */
export function Broken({ error, onAgain }: { readonly error: unknown; readonly onAgain: () => void }) {
  return (
    <div className="broken" role="alert">
      <p>{sentenceOf(error)}</p>
      <Button size="small" onClick={onAgain}>
        Try again
      </Button>
    </div>
  );
}

/** What an artist reads when a part of the page could not be shown. */
export function sentenceOf(error: unknown): string {
  if (isNotLoaded(error)) return NOT_LOADED;
  const message = error instanceof Error ? error.message : String(error);
  return `This part of Blunt Hem broke down (${message}). Everything up to the last act is kept.`;
}
