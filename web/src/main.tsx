import { QueryClientProvider } from '@tanstack/react-query';
import { lazy, StrictMode, Suspense } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter, Navigate, Route, Routes } from 'react-router';
import { whenIdle } from './parts/idle';
import { IntakeProvider } from './parts/intake';
import { Notices } from './parts/notices';
import { followScheme } from './parts/scheme';
import { queryClient } from './parts/stale';
import { Room } from './Room';
import { Start } from './Start';
import './style.css';

const stations = {
  capture: () => import('./stations/capture/Capture'),
  page: () => import('./stations/pages/PageEditor'),
  compare: () => import('./stations/pages/Compare'),
  sort: () => import('./stations/sort/Sort'),
  check: () => import('./stations/check/Check'),
  shelf: () => import('./stations/shelf/ShelfStation'),
  ledger: () => import('./stations/ledger/LedgerStation'),
  filing: () => import('./stations/check/WaysOfFiling'),
  people: () => import('./stations/people/People'),
  words: () => import('./stations/check/DoubtfulWords'),
};
const Capture = lazy(stations.capture);
const PageEditor = lazy(stations.page);
const Compare = lazy(stations.compare);
const Sort = lazy(stations.sort);
const Check = lazy(stations.check);
const ShelfStation = lazy(stations.shelf);
const LedgerStation = lazy(stations.ledger);
const WaysOfFiling = lazy(stations.filing);
const People = lazy(stations.people);
const DoubtfulWords = lazy(stations.words);
// The station that is gone to first is loaded first; the others once there is nothing else to do, so that going there is instant.
whenIdle(() => Object.values(stations).forEach((load) => void load()), 3000);

// Ready where there is no line, from the next visit on. A device that does not trust the certificate of the line refuses it.
if (import.meta.env.PROD) whenIdle(() => void navigator.serviceWorker?.register('/sw.js').catch(() => undefined), 5000);

followScheme();
createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={queryClient}>
      <Notices>
        <IntakeProvider>
          <BrowserRouter>
            <Suspense>
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
            </Suspense>
          </BrowserRouter>
        </IntakeProvider>
      </Notices>
    </QueryClientProvider>
  </StrictMode>,
);
