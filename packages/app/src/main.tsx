import '@fontsource-variable/hanken-grotesk';
import './theme/base.css';
import { App as AntApp, ConfigProvider } from 'antd';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, RouterProvider } from 'react-router';
import { BenchPage } from './bench/BenchPage.tsx';
import { HelpPage } from './help/HelpPage.tsx';
import { LostPage } from './help/LostPage.tsx';
import { RackPage } from './rack/RackPage.tsx';
import { useBench } from './store/benchStore.ts';
import { themeConfig } from './theme/theme.ts';

const router = createBrowserRouter([
  { path: '/', element: <RackPage /> },
  { path: '/project/:id', element: <BenchPage /> },
  { path: '/help', element: <HelpPage /> },
  { path: '*', element: <LostPage /> },
]);

const nonce = document.querySelector<HTMLMetaElement>('meta[name="csp-nonce"]')?.content;

function Root() {
  const dark = useBench((s) => s.dark);
  document.documentElement.dataset.theme = dark ? 'dark' : 'light';
  return (
    <ConfigProvider componentSize="small" theme={themeConfig(dark)} csp={{ nonce }}>
      <AntApp component={false}>
        <RouterProvider router={router} />
      </AntApp>
    </ConfigProvider>
  );
}

createRoot(document.getElementById('root') as HTMLElement).render(<Root />);
