import { QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter, Navigate, Route, Routes } from 'react-router';
import { whenIdle } from './parts/idle';
import { IntakeProvider } from './parts/intake';
import { later } from './parts/later';
import { Notices } from './parts/notices';
import { followScheme } from './parts/scheme';
import { queryClient } from './parts/stale';
import { Room } from './Room';
import { Start } from './Start';
import './style.css';

const Capture = later(async () => (await import('./stations/capture/Capture')).default);
const PageEditor = later(async () => (await import('./stations/pages/PageEditor')).default);
const Compare = later(async () => (await import('./stations/pages/Compare')).default);
const Sort = later(async () => (await import('./stations/sort/Sort')).default);
const Check = later(async () => (await import('./stations/check/Check')).default);
const ShelfStation = later(async () => (await import('./stations/shelf/ShelfStation')).default);
const LedgerStation = later(async () => (await import('./stations/ledger/LedgerStation')).default);
const WaysOfFiling = later(async () => (await import('./stations/check/WaysOfFiling')).default);
const People = later(async () => (await import('./stations/people/People')).default);
const DoubtfulWords = later(async () => (await import('./stations/check/DoubtfulWords')).default);
const STATIONS = [
  Capture,
  PageEditor,
  Compare,
  Sort,
  Check,
  ShelfStation,
  LedgerStation,
  WaysOfFiling,
  People,
  DoubtfulWords,
];
// The station that is gone to first is loaded first; the others once there is nothing else to do, so that going there is instant.
whenIdle(() => STATIONS.forEach(({ load }) => void load().catch(() => undefined)), 3000);

// Ready where there is no line, from the next visit on. A device that does not trust the certificate of the line refuses it.
if (import.meta.env.PROD) whenIdle(() => void navigator.serviceWorker?.register('/sw.js').catch(() => undefined), 5000);

followScheme();
createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={queryClient}>
      <Notices>
        <IntakeProvider>
          <BrowserRouter>
            <Routes>
              <Route element={<Room />}>
                <Route path="/capture" element={<Capture />} />
                <Route path="/page/:stack/:page" element={<PageEditor />} />
                <Route path="/compare/:stack/:one/:other" element={<Compare />} />
                <Route path="/sort/:id?" element={<Sort />} />
                <Route path="/check/:id?" element={<Check />} />
                <Route path="/shelf/:folder?/:document?" element={<ShelfStation />} />
                <Route path="/ledger" element={<LedgerStation />} />
                <Route path="/words/:id" element={<DoubtfulWords />} />
                <Route path="/filing" element={<WaysOfFiling />} />
                <Route path="/people" element={<People />} />
                <Route path="/start" element={<Start />} />
                <Route path="*" element={<Navigate to="/capture" replace />} />
              </Route>
            </Routes>
          </BrowserRouter>
        </IntakeProvider>
      </Notices>
    </QueryClientProvider>
  </StrictMode>,
);
