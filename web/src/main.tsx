import { QueryClientProvider } from '@tanstack/react-query';
import { lazy, StrictMode, Suspense } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter, Navigate, Route, Routes } from 'react-router';
import { IntakeProvider } from './parts/intake';
import { Notices } from './parts/notices';
import { queryClient } from './parts/stale';
import { Room } from './Room';
import './style.css';

// Each station is loaded when somebody goes there.
const Capture = lazy(() => import('./stations/capture/Capture'));
const Sort = lazy(() => import('./stations/sort/Sort'));
const Check = lazy(() => import('./stations/check/Check'));
const ShelfStation = lazy(() => import('./stations/shelf/ShelfStation'));

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
                  <Route path="/sort/:id?" element={<Sort />} />
                  <Route path="/check/:id?" element={<Check />} />
                  <Route path="/shelf/:folder?/:document?" element={<ShelfStation />} />
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
