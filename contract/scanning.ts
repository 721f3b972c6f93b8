import { array, boolean, InferType, mixed, number, object, string } from 'yup';
import { idParams } from './basics';
import { endpoint } from './endpoint';
import { ProblemReport } from './problems';

export const SCAN_SOURCES = ['feeder', 'glass'] as const;
export type ScanSourceName = (typeof SCAN_SOURCES)[number];
export const SCAN_COLOURS = ['colour', 'grey', 'blackAndWhite'] as const;
export type ScanColour = (typeof SCAN_COLOURS)[number];

const id = string().uuid().required();
const length = number().min(0).max(5000).required();
const size = object({ width: length, height: length });

/** What a scanner can do; sizes in points. */
export const scannerCapabilities = object({
  model: string().required(),
  glass: size.nullable().defined(),
  feeder: size.nullable().defined(),
  bothSides: boolean().required(),
  colours: array(string().oneOf(SCAN_COLOURS).required()).required(),
  resolutions: array(number().required()).required(),
});
export type ScannerCapabilities = InferType<typeof scannerCapabilities>;

/** How a scan is made. */
export const scanSettings = object({
  /** `whichever`: the feeder when there is paper in it, else the glass. */
  source: string()
    .oneOf([...SCAN_SOURCES, 'whichever'] as const)
    .required(),
  bothSides: boolean().required(),
  colour: string().oneOf(SCAN_COLOURS).required(),
  resolution: number().integer().min(50).max(1200).required(),
  /** In points from the upper left; null for all that the scanner sees. */
  area: object({ x: length, y: length, width: length, height: length }).nullable().defined(),
  /** Whether what comes is one document, however long. */
  whole: boolean().required(),
});
export type ScanSettings = InferType<typeof scanSettings>;

export const scanner = object({
  id,
  name: string().required(),
  address: string().required(),
  capabilities: scannerCapabilities,
  /** How it was used last. */
  last: scanSettings.nullable().defined(),
});
export type Scanner = InferType<typeof scanner>;

export const scanPreset = object({ id, name: string().required(), scannerId: id, settings: scanSettings });
export type ScanPreset = InferType<typeof scanPreset>;

/** A scan under way, or the last one of a scanner. */
export const scan = object({
  id,
  scannerId: id,
  stackId: id,
  state: string()
    .oneOf(['running', 'done', 'stopped', 'failed'] as const)
    .required(),
  pages: number().integer().required(),
  problem: mixed<ProblemReport>().nullable().defined(),
});
export type Scan = InferType<typeof scan>;

export const scanStart = object({
  settings: scanSettings.required(),
  stack: id,
  stackName: string().max(300).required(),
  /** The number that the first page gets among the files of its stack. */
  position: number().integer().min(0).max(1_000_000).required(),
  before: string().uuid(),
  again: string().uuid(),
  document: string().uuid(),
});

export const scannerAddress = object({
  address: string()
    .trim()
    .max(300)
    .matches(/^(https?:\/\/)?[\w.:[\]-]+(\/[\w./-]*)?$/, 'an address looks like 192.168.1.20')
    .required(),
});

export const scanningEndpoints = {
  listScanners: endpoint({
    right: 'work',
    method: 'GET',
    path: '/scanners',
    summary: 'The scanners that are known',
    reply: array(scanner).required(),
  }),
  findScanners: endpoint({
    right: 'work',
    method: 'POST',
    path: '/scanners/find',
    summary: 'Look for scanners on the network',
    reply: array(scanner).required(),
  }),
  addScanner: endpoint({
    right: 'work',
    method: 'POST',
    path: '/scanners',
    summary: 'Make a scanner known by its address',
    body: scannerAddress,
    reply: scanner,
  }),
  forgetScanner: endpoint({
    right: 'work',
    method: 'DELETE',
    path: '/scanners/:id',
    summary: 'Forget a scanner',
    params: idParams,
  }),
  startScan: endpoint({
    right: 'work',
    method: 'POST',
    path: '/scanners/:id/scans',
    summary: 'Scan; the pages go to a stack one by one',
    params: idParams,
    body: scanStart,
    reply: scan,
  }),
  previewScan: endpoint({
    right: 'work',
    method: 'POST',
    path: '/scanners/:id/preview',
    summary: 'A small picture of what lies on the glass (JPEG)',
    params: idParams,
  }),
  listScans: endpoint({
    right: 'work',
    method: 'GET',
    path: '/scans',
    summary: 'Scans under way, and how the last ones ended',
    reply: array(scan).required(),
  }),
  stopScan: endpoint({
    right: 'work',
    method: 'POST',
    path: '/scans/:id/stop',
    summary: 'Stop a scan',
    params: idParams,
  }),
  listPresets: endpoint({
    right: 'work',
    method: 'GET',
    path: '/presets',
    summary: 'Settings for scanning that have a name',
    reply: array(scanPreset).required(),
  }),
  savePreset: endpoint({
    right: 'work',
    method: 'POST',
    path: '/presets',
    summary: 'Give settings for scanning a name; one of the same name is replaced',
    body: object({
      name: string().trim().min(1).max(60).required(),
      scannerId: id,
      settings: scanSettings.required(),
    }),
    reply: scanPreset,
  }),
  deletePreset: endpoint({
    right: 'work',
    method: 'DELETE',
    path: '/presets/:id',
    summary: 'Delete a preset',
    params: idParams,
  }),
};
