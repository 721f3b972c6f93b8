import { useEffect, useState } from 'react';
import { Navigate, NavLink, Outlet, useLocation, useNavigate } from 'react-router';
import { Search } from 'lucide-react';
import { endpoints } from '@crow/contract/endpoints';
import { ProblemText } from './parts/controls';
import { useIntake } from './parts/intake';
import { isTyping, KeyWords, useKeys } from './parts/keys';
import { KeysPanel } from './parts/KeysPanel';
import { writeDaysAs } from './parts/days';
import { Settings } from './parts/Settings';
import { queryClient } from './parts/stale';
import { listen, useChange, useMay, useOverview, usePresets, useSettings } from './queries';

/** The window: the rail with the stations in the order of the work, and the station that one is at. */
export function Room() {
  const navigate = useNavigate();
  useEffect(() => listen(queryClient), []);
  useDropAnywhere();
  const days = useSettings().data?.days;
  if (days) writeDaysAs(days);
  useKeys(
    {
      '/': () => void navigate('/shelf?find='),
      1: () => void navigate('/capture'),
      2: () => void navigate('/sort'),
      3: () => void navigate('/check'),
      4: () => void navigate('/shelf'),
      5: () => void navigate('/ledger'),
    },
    EVERYWHERE,
  );
  return (
    <div className="flex h-full flex-col-reverse md:flex-row">
      <KeysPanel />
      <Rail />
      {/* Days are written anew everywhere when their form changes. */}
      <main key={days ?? 'iso'} className="flex min-h-0 min-w-0 flex-1 flex-col">
        <Troubles />
        <div className="min-h-0 flex-1">
          <Within />
        </div>
      </main>
    </div>
  );
}

/** The station, for whom it is there; whoever may only read, or only capture, is at the one that they have. */
function Within() {
  const { pathname } = useLocation();
  const [captures, reads, works] = [useMay('capture'), useMay('read'), useMay('work')];
  const allowed = /^\/(capture|page|compare)\b/.test(pathname) ? captures : /^\/shelf\b/.test(pathname) ? reads : works;
  return allowed ? <Outlet /> : <Navigate to={reads ? '/shelf' : '/capture'} replace />;
}

/** What keeps everything from going on, above whatever is shown. */
function Troubles() {
  const { data } = useOverview();
  const anew = useChange(endpoints.writeShelfAnew, ['document']);
  const troubles = data?.troubles ?? [];
  if (troubles.length === 0) return null;
  return (
    <div role="alert" className="flex flex-col gap-1 border-b border-rule bg-raised p-2">
      {troubles.map((report) => (
        <ProblemText key={report.happened} report={report}>
          {report.code === 'shelf-gone' && (
            <button className="ml-2 underline underline-offset-2" onClick={() => anew.mutate({})}>
              It is lost: create it again
            </button>
          )}
        </ProblemText>
      ))}
    </div>
  );
}

const EVERYWHERE: KeyWords = [
  ['/', 'Find'],
  ['1 2 3 4 5', 'Go to Capture, Sort, Check, Shelf, Ledger'],
];

function Rail() {
  const { data } = useOverview();
  const { transfers } = useIntake();
  const arriving =
    transfers.filter(({ state }) => state === 'sending' || state === 'waiting').length +
    (data?.arriving ?? 0) +
    (data?.watched ?? 0);
  const navigate = useNavigate();
  const [captures, works, reads] = [useMay('capture'), useMay('work'), useMay('read')];
  const waits = (data?.stacks ?? 0) + (data?.check ?? 0) + (data?.ties ?? 0) + arriving;
  return (
    <nav
      aria-label="Stations"
      className="flex h-14 shrink-0 border-t border-rule bg-sunken md:h-auto md:w-[84px] md:flex-col md:border-t-0 md:border-r"
    >
      <div className="hidden h-14 items-center justify-center md:flex short:hidden" aria-hidden>
        <img src="/icon.svg" alt="" className="size-7" />
      </div>
      {captures && <Station to="/capture" name="Capture" number={arriving} what="arriving" />}
      {works && (
        <>
          <RailPresets />
          <Station to="/sort" name="Sort" number={data?.stacks ?? 0} what="to sort" />
          <Station to="/check" name="Check" number={data?.check ?? 0} what="to check" />
        </>
      )}
      {reads && <Station to="/shelf" name="Shelf" number={data?.filing ?? 0} what="on the way" />}
      {works && <Station to="/ledger" name="Ledger" number={data?.ties ?? 0} what="ties to decide on" />}
      {works && data && waits === 0 && <p className="mt-3 hidden text-center text-sm text-sure md:block">✓ done</p>}
      <div className="flex flex-1 md:mt-auto md:flex-none md:flex-col md:items-stretch md:pb-2">
        {reads && (
          <button
            className="flex flex-1 flex-col items-center justify-center gap-1 py-2 text-sm hover:bg-ground"
            onClick={() => void navigate('/shelf?find=')}
            title="Find (/)"
          >
            <Search size={18} aria-hidden />
            <span className="short:sr-only">Find</span>
          </button>
        )}
        <Settings />
      </div>
    </nav>
  );
}

function Station({ to, name, number, what }: { to: string; name: string; number: number; what: string }) {
  return (
    <NavLink
      to={to}
      className={({ isActive }) =>
        `flex flex-1 flex-col items-center border-t-3 pt-1 md:flex-none md:border-t-0 md:border-l-3 md:py-2.5 md:pr-[3px] short:md:py-1 ${isActive ? 'border-accent bg-ground font-semibold' : 'border-transparent hover:bg-ground'}`
      }
    >
      <span>{name}</span>
      <span
        className={`font-mono text-lg leading-5 ${number > 0 ? 'text-accent' : 'text-quiet'}`}
        aria-label={`${number} ${what}`}
      >
        {number > 0 ? number : '·'}
      </span>
    </NavLink>
  );
}

/** Scans with the settings that have a name, with one click. */
function RailPresets() {
  const { data: presets = [] } = usePresets();
  const navigate = useNavigate();
  if (presets.length === 0) return null;
  return (
    <ul aria-label="Scan like this" className="hidden border-b border-rule pb-2 md:block">
      {presets.slice(0, MOST_IN_RAIL).map(({ id, name }) => (
        <li key={id}>
          <button
            className="w-full truncate px-1.5 py-1 text-center text-xs text-accent hover:bg-ground"
            title={`Scan now: ${name}`}
            onClick={() => void navigate(`/capture?source=scanner&preset=${id}`)}
          >
            {name}
          </button>
        </li>
      ))}
    </ul>
  );
}

const MOST_IN_RAIL = 4;

/** Files dropped anywhere on the window, or pasted, are taken in. */
function useDropAnywhere(): void {
  const { takeIn } = useIntake();
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const [over, setOver] = useState(false);
  useEffect(() => {
    const bringsFiles = (event: DragEvent) => event.dataTransfer?.types.includes('Files') ?? false;
    const receive = (files: File[]) => {
      if (files.length === 0) return;
      takeIn(files);
      if (pathname !== '/capture') void navigate('/capture');
    };
    const enter = (event: DragEvent) => {
      if (!bringsFiles(event)) return;
      event.preventDefault();
      setOver(true);
    };
    const leave = (event: DragEvent) => event.relatedTarget === null && setOver(false);
    const drop = (event: DragEvent) => {
      if (!bringsFiles(event)) return;
      event.preventDefault();
      setOver(false);
      receive([...(event.dataTransfer?.files ?? [])]);
    };
    const paste = (event: ClipboardEvent) => {
      if (isTyping(event.target)) return;
      receive([...(event.clipboardData?.files ?? [])]);
    };
    const listening = new AbortController();
    const { signal } = listening;
    window.addEventListener('dragenter', enter, { signal });
    window.addEventListener('dragover', enter, { signal });
    window.addEventListener('dragleave', leave, { signal });
    window.addEventListener('drop', drop, { signal });
    window.addEventListener('paste', paste, { signal });
    return () => listening.abort();
  }, [takeIn, navigate, pathname]);
  useEffect(() => {
    document.body.toggleAttribute('data-files-over', over);
  }, [over]);
}
