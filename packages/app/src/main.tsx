import '@fontsource-variable/hanken-grotesk';
import './theme/base.css';
import { ConfigProvider } from 'antd';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, RouterProvider } from 'react-router';
import { LostPage } from './help/LostPage.tsx';
import { BrokenPage } from './loading/BrokenPage.tsx';
import { lazyPart } from './loading/lazyPart.tsx';
import { NewBuild } from './loading/NewBuild.tsx';
import { RackPage } from './rack/RackPage.tsx';
import { useBench } from './store/bench.ts';
import { themeConfig } from './theme/theme.ts';

/** Views are loaded when they are opened; the Rack is there at once. */
const BenchPage = lazyPart(async () => (await import('./bench/BenchPage.tsx')).BenchPage);
const HelpPage = lazyPart(async () => (await import('./help/HelpPage.tsx')).HelpPage);

const router = createBrowserRouter([
  {
    errorElement: <BrokenPage />,
    children: [
      { path: '/', element: <RackPage /> },
      { path: '/project/:id', element: <BenchPage /> },
      { path: '/help', element: <HelpPage /> },
      { path: '*', element: <LostPage /> },
    ],
  },
]);

const nonce = document.querySelector<HTMLMetaElement>('meta[name="csp-nonce"]')?.content;

function Root() {
  const dark = useBench((s) => s.dark);
  document.documentElement.dataset.theme = dark ? 'dark' : 'light';
  return (
    <ConfigProvider componentSize="small" theme={themeConfig(dark)} csp={{ nonce }}>
      <RouterProvider router={router} />
      <NewBuild />
    </ConfigProvider>
  );
}

createRoot(document.getElementById('root') as HTMLElement).render(<Root />);
