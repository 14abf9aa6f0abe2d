import { Button } from 'antd';
import { useEffect, useState } from 'react';

/** How often it is looked whether the server has another build, milliseconds. */
const OFTEN = 10 * 60 * 1000;

/**
 * Has the parts of this build kept in the browser, so that all of them work when the server is gone or has another one; and tells when
 * there is another.
 */
export function NewBuild() {
  const [waiting, setWaiting] = useState<ServiceWorker>();
  useEffect(() => {
    // Vite serves no build while it is being developed; and pages that may keep nothing may not have one either.
    if (import.meta.env.DEV || !navigator.serviceWorker) return;
    let timer: ReturnType<typeof setInterval> | undefined;
    void (async () => {
      const registration = await navigator.serviceWorker.register('/sw.js');
      const look = () => {
        const { waiting: other } = registration;
        if (other && navigator.serviceWorker.controller) setWaiting(other);
      };
      look();
      registration.addEventListener('updatefound', () =>
        registration.installing?.addEventListener('statechange', look),
      );
      timer = setInterval(() => void registration.update().catch(() => undefined), OFTEN);
    })().catch(() => undefined); // without it everything works while the server does
    return () => clearInterval(timer);
  }, []);
  if (!waiting) return null;
  const reload = () => {
    navigator.serviceWorker.addEventListener('controllerchange', () => window.location.reload(), {
      once: true,
    });
    waiting.postMessage('take-over');
  };
  return (
    <div className="new-build" role="status">
      There is a newer Blunt Hem.
      <Button size="small" onClick={reload}>
        Reload
      </Button>
    </div>
  );
}
