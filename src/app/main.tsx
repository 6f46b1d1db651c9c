import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import { Bench } from './shell/Bench';
import { Fault } from './shell/Fault';
import { NamesPage } from './shell/NamesPage';
import { Newer } from './shell/Newer';
import { StartPage } from './shell/StartPage';
import { applyBenchLight } from './state/light';
import './style.css';
import { TipLayer } from './ui/Tip';

applyBenchLight();

const router = createBrowserRouter([
  { path: '/', element: <StartPage />, errorElement: <Fault /> },
  { path: '/names', element: <NamesPage />, errorElement: <Fault /> },
  { path: '/p/:projectId', element: <Navigate to="draw" replace />, errorElement: <Fault /> },
  { path: '/p/:projectId/:stage', element: <Bench />, errorElement: <Fault /> },
  { path: '*', element: <Navigate to="/" replace /> },
]);
const queries = new QueryClient({
  defaultOptions: { queries: { retry: false, networkMode: 'always' }, mutations: { networkMode: 'always' } },
});

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <RouterProvider router={router} />
      <TipLayer />
      <Newer />
    </QueryClientProvider>
  </StrictMode>,
);
