import { Search, Trash2 } from 'lucide-react';
import { useEffect, useEffectEvent, useState } from 'react';
import { useSearchParams } from 'react-router';
import { endpoints } from '@crow/contract/endpoints';
import { inWords } from '@crow/contract/problems';
import { Scan, Scanner, ScanPreset, ScanSettings } from '@crow/contract/scanning';
import { AskText } from '../../parts/AskText';
import { Button, Choice, IconButton, Key, Tick } from '../../parts/controls';
import { DividerSheets } from '../../parts/DividerSheets';
import { Place } from '../../parts/intake';
import { isPressed, useKeys } from '../../parts/keys';
import { count } from '../../parts/words';
import { useChange, usePresets, useScanners, useScans } from '../../queries';
import { GlassPreview } from './GlassPreview';
import { COLOUR_NAMES, paperOf, SCAN_PAPERS, SOURCE_NAMES, usualSettings } from './scanWords';

/** What is scanned when no paper's size is chosen. */
const ALL = 'all';
const DRAWN = 'drawn';

interface ScannerSourceProps {
  /** Where the pages go; a stack of their own where nothing is chosen. */
  placeFor: (scanner: Scanner) => Place;
}

/** Scanning: which scanner, how, and how far it is. */
export default function ScannerSource({ placeFor }: ScannerSourceProps) {
  const { data: scanners } = useScanners();
  const [chosen, setChosen] = useState<string>();
  const [typing, setTyping] = useState(false);
  const find = useChange(endpoints.findScanners, ['scan']);
  const add = useChange(endpoints.addScanner, ['scan'], ({ id }) => setChosen(id));
  const forget = useChange(endpoints.forgetScanner, ['scan']);
  const { data: presets = [] } = usePresets();
  const [query] = useSearchParams();
  const asked = presets.find(({ id }) => id === query.get('preset'))?.scannerId;
  const scanner = scanners?.find(({ id }) => id === (asked ?? chosen)) ?? scanners?.[0];
  if (!scanners) return null;
  return (
    <section aria-label="Scanner" className="flex shrink-0 flex-col gap-3 border-b border-rule px-4 py-3 md:px-6">
      <div className="flex flex-wrap items-center gap-2">
        {scanner ? (
          <span className="text-sm text-quiet">
            <Choice
              label="Scanner"
              shown
              className="max-w-64"
              value={scanner.id}
              choices={scanners.map(({ id, name }) => ({ value: id, name }))}
              onChange={setChosen}
            />
          </span>
        ) : (
          <p>
            <strong className="font-semibold">No scanner is known yet.</strong> Crow Shelf scans with network scanners
            that speak eSCL, as most do.
          </p>
        )}
        <Button onClick={() => find.mutate({})} disabled={find.isPending}>
          <Search size={14} aria-hidden /> {find.isPending ? 'Looking …' : 'Look on the network'}
        </Button>
        <Button onClick={() => setTyping(true)}>By its address …</Button>
        {scanner && (
          <IconButton name={`Forget ${scanner.name}`} onClick={() => forget.mutate({ params: { id: scanner.id } })}>
            <Trash2 size={16} />
          </IconButton>
        )}
      </div>
      {scanner && <Scanning key={scanner.id} scanner={scanner} placeFor={placeFor} />}
      {typing && (
        <AskText
          title="The scanner’s address"
          label="Address, such as 192.168.1.20"
          confirm="Ask it"
          onConfirm={(address) => add.mutateAsync({ body: { address } })}
          onClose={() => setTyping(false)}
        />
      )}
    </section>
  );
}

function Scanning({ scanner, placeFor }: { scanner: Scanner } & ScannerSourceProps) {
  const { data: scans = [] } = useScans();
  const { data: presets = [] } = usePresets();
  const [settings, setSettings] = useState<ScanSettings>(() => scanner.last ?? usualSettings(scanner));
  const [naming, setNaming] = useState(false);
  const [dividing, setDividing] = useState(false);
  const start = useChange(endpoints.startScan, ['scan', 'stack']);
  const stop = useChange(endpoints.stopScan, ['scan']);
  const keep = useChange(endpoints.savePreset, ['scan']);
  const drop = useChange(endpoints.deletePreset, ['scan']);
  const latest = scans.find(({ scannerId }) => scannerId === scanner.id);
  const running = latest?.state === 'running';
  const { glass, feeder, bothSides, colours, resolutions } = scanner.capabilities;
  const set = (part: Partial<ScanSettings>) => setSettings({ ...settings, ...part });
  const begin = (how: ScanSettings) => {
    if (running || start.isPending) return;
    const { stackId, stackName, sent, before, again, documentId } = placeFor(scanner);
    start.mutate({
      params: { id: scanner.id },
      body: { settings: how, stack: stackId, stackName, position: sent, before, again, document: documentId },
    });
  };
  const scan = (how: ScanSettings = settings) => {
    setSettings(how);
    begin(how);
  };
  const [query, setQuery] = useSearchParams();
  const asked = presets.find(({ id, scannerId }) => id === query.get('preset') && scannerId === scanner.id);
  const [askedBefore, setAskedBefore] = useState<string>();
  if (asked && asked.id !== askedBefore) {
    setAskedBefore(asked.id);
    setSettings(asked.settings);
  }
  const carryOut = useEffectEvent((preset: ScanPreset) => {
    setQuery({ source: 'scanner' }, { replace: true });
    begin(preset.settings);
  });
  useEffect(() => {
    if (asked) carryOut(asked);
  }, [asked]);
  useKeys({ Enter: () => scan(), Escape: () => running && stop.mutate({ params: { id: latest.id } }) }, [
    ['Enter', 'Scan'],
    ['Escape', 'Stop scanning'],
  ]);
  const sources = Object.keys(SOURCE_NAMES) as ScanSettings['source'][];
  const usable = sources.filter((source) =>
    source === 'glass' ? glass : source === 'feeder' ? feeder : glass && feeder,
  );
  return (
    <>
      <div
        role="presentation"
        className="flex flex-wrap items-center gap-x-4 gap-y-2 text-sm text-quiet"
        onKeyDown={(event) => {
          // What was just chosen is scanned with; only a button is pressed.
          if (event.key !== 'Enter' || isPressed(event.target)) return;
          event.preventDefault();
          scan();
        }}
      >
        <Choice
          label="From"
          shown
          value={settings.source}
          choices={usable.map((source) => ({ value: source, name: SOURCE_NAMES[source] }))}
          onChange={(source) => set({ source })}
        />
        {bothSides && (
          <label className={`flex items-center gap-2 ${settings.source === 'glass' ? 'opacity-45' : ''}`}>
            <input
              type="checkbox"
              className="accent-accent"
              checked={settings.bothSides}
              disabled={settings.source === 'glass'}
              onChange={(event) => set({ bothSides: event.target.checked })}
            />
            Both sides
          </label>
        )}
        <Choice
          label="Colour"
          value={settings.colour}
          choices={colours.map((colour) => ({ value: colour, name: COLOUR_NAMES[colour] }))}
          onChange={(colour) => set({ colour })}
        />
        <Choice
          label="Resolution"
          value={settings.resolution}
          choices={resolutions.map((dpi) => ({ value: dpi, name: `${dpi} dpi` }))}
          onChange={(resolution) => set({ resolution })}
        />
        <Choice
          label="Paper"
          value={settings.area ? (paperOf(settings.area) ?? DRAWN) : ALL}
          choices={[
            ...SCAN_PAPERS.map(({ name }) => ({ value: name, name })),
            { value: ALL, name: 'The whole area' },
            ...(settings.area && !paperOf(settings.area) ? [{ value: DRAWN, name: 'As drawn on the glass' }] : []),
          ]}
          onChange={(chosen) => {
            if (chosen === DRAWN) return;
            const paper = SCAN_PAPERS.find(({ name }) => name === chosen);
            set({ area: paper ? { x: 0, y: 0, width: paper.width, height: paper.height } : null });
          }}
        />
        <Tick checked={settings.whole} onChange={(whole) => set({ whole })}>
          One document
        </Tick>
      </div>
      <div className="flex flex-wrap items-center gap-2">
        {running ? (
          <Button main onClick={() => stop.mutate({ params: { id: latest.id } })} hint="Esc">
            Stop
          </Button>
        ) : (
          <Button main onClick={() => scan()} hint="Enter" disabled={start.isPending}>
            {settings.source === 'glass' && latest ? 'Scan the next page' : 'Scan'}
          </Button>
        )}
        {glass && (
          <GlassPreview scanner={scanner} area={settings.area} onArea={(area) => set({ area, source: 'glass' })} />
        )}
        {presets
          .filter(({ scannerId }) => scannerId === scanner.id)
          .map((preset) => (
            <span key={preset.id} className="inline-flex items-center border border-rule bg-raised">
              <button className="h-8 px-3 text-sm" onClick={() => scan(preset.settings)} title="Scan like this">
                {preset.name}
              </button>
              <IconButton
                name={`Delete the preset ${preset.name}`}
                onClick={() => drop.mutate({ params: { id: preset.id } })}
              >
                <Trash2 size={14} />
              </IconButton>
            </span>
          ))}
        <button className="px-2 text-sm underline underline-offset-2" onClick={() => setNaming(true)}>
          Keep these settings …
        </button>
        <button className="px-2 text-sm underline underline-offset-2" onClick={() => setDividing(true)}>
          Divider sheets …
        </button>
        <ScanLine scan={latest} />
      </div>
      {dividing && <DividerSheets onClose={() => setDividing(false)} />}
      {naming && (
        <AskText
          title="A name for these settings"
          label="Name"
          confirm="Keep"
          onConfirm={(name) => keep.mutateAsync({ body: { name, scannerId: scanner.id, settings } })}
          onClose={() => setNaming(false)}
        />
      )}
    </>
  );
}

/** How far the scan is, or how the last one ended. */
function ScanLine({ scan }: { scan: Scan | undefined }) {
  if (!scan) return null;
  const { state, pages, problem } = scan;
  const came = count(pages, 'page');
  const words = {
    running: pages === 0 ? 'Scanning …' : `Scanning … ${came} so far`,
    done: `${came} scanned.`,
    stopped: `Stopped; ${came} kept.`,
    failed: problem ? inWords(problem) : '',
  }[state];
  return (
    <p role="status" className={`ml-2 text-sm ${state === 'failed' ? 'text-danger' : 'text-quiet'}`}>
      {state === 'failed' && <strong className="font-semibold">! </strong>}
      {words}
      {state === 'failed' && pages > 0 && ` ${came} came through.`}
      {state === 'failed' && (
        <>
          {' '}
          <Key>Enter</Key>
        </>
      )}
    </p>
  );
}
