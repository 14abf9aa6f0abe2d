import '@fontsource-variable/hanken-grotesk';
import './theme/base.css';
import { ConfigProvider } from 'antd';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, RouterProvider } from 'react-router';
import { LostPage } from './help/LostPage.tsx';
import { RackPage } from './rack/RackPage.tsx';
import { useBench } from './store/bench.ts';
import { themeConfig } from './theme/theme.ts';

/** Views are loaded when they are opened; the Rack is there at once. */
const router = createBrowserRouter([
  { path: '/', element: <RackPage /> },
  {
    path: '/project/:id',
    lazy: async () => ({ Component: (await import('./bench/BenchPage.tsx')).BenchPage }),
  },
  { path: '/help', lazy: async () => ({ Component: (await import('./help/HelpPage.tsx')).HelpPage }) },
  { path: '*', element: <LostPage /> },
]);

const nonce = document.querySelector<HTMLMetaElement>('meta[name="csp-nonce"]')?.content;

function Root() {
  const dark = useBench((s) => s.dark);
  document.documentElement.dataset.theme = dark ? 'dark' : 'light';
  return (
    <ConfigProvider componentSize="small" theme={themeConfig(dark)} csp={{ nonce }}>
      <RouterProvider router={router} />
    </ConfigProvider>
  );
}

createRoot(document.getElementById('root') as HTMLElement).render(<Root />);
