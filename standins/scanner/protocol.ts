import { randomUUID } from 'node:crypto';
import { setTimeout as sleep } from 'node:timers/promises';
import { XMLParser } from 'fast-xml-parser';
import { FastifyInstance } from 'fastify';
import { LoadedSheet, Machine } from './machine';
import { blankSide, ColourMode, ScanArea, scanSide } from './sheet';
import { capabilities, FEEDER, GLASS, JobWords, RESOLUTIONS, status } from './words';

interface Settings {
  source: 'glass' | 'feeder';
  bothSides: boolean;
  colour: ColourMode;
  resolution: number;
  area: ScanArea;
}

interface Job extends Settings {
  id: string;
  began: number;
  completed: number;
  state: JobWords['state'];
  reason: string;
  /** The back of the sheet that has gone through, still to be given. */
  back?: LoadedSheet;
}

const xml = new XMLParser({ removeNSPrefix: true, parseTagValue: false });
/** How long a side takes at 200 dpi; more at more. */
const SIDE_MS = 350;
const LONGEST_MS = 4000;
const MOST_JOBS_KEPT = 10;

/** The scanner's side of eSCL: capabilities, status, jobs, and their pages one by one. */
export function speakEscl(
  app: FastifyInstance,
  machine: Machine,
  { hurry = 1, seed = Date.now() % 1_000_000 } = {},
): void {
  let sides = seed;
  const jobs: Job[] = [];
  const address = ({ id }: Job) => `/eSCL/ScanJobs/${id}`;
  app.addContentTypeParser(['text/xml', 'application/xml'], { parseAs: 'string' }, (_request, body, done) =>
    done(null, body),
  );
  app.get('/eSCL/ScannerCapabilities', async (_request, reply) => reply.type('text/xml').send(capabilities()));
  app.get('/eSCL/ScannerStatus', async (_request, reply) => {
    const state = machine.trouble ? 'Stopped' : machine.busy ? 'Processing' : 'Idle';
    const words = jobs.map((job): JobWords => ({
      uri: address(job),
      uuid: job.id,
      ageSeconds: Math.round((Date.now() - job.began) / 1000),
      completed: job.completed,
      state: job.state,
      reason: job.reason,
    }));
    return reply.type('text/xml').send(status(state, feederState(machine), words));
  });
  app.post('/eSCL/ScanJobs', async (request, reply) => {
    const settings = readSettings(String(request.body));
    if (!settings) return reply.code(409).send();
    if (machine.busy || jobs.some(({ state }) => state === 'Processing'))
      return reply.code(503).header('retry-after', '2').send();
    if (settings.source === 'feeder' && (machine.trouble || machine.feeder.length === 0)) return reply.code(409).send();
    const job: Job = {
      ...settings,
      id: randomUUID(),
      began: Date.now(),
      completed: 0,
      state: 'Processing',
      reason: 'JobScanning',
    };
    jobs.unshift(job);
    jobs.length = Math.min(jobs.length, MOST_JOBS_KEPT);
    return reply
      .code(201)
      .header('location', `http://${request.headers.host}${address(job)}`)
      .send();
  });
  app.get<{ Params: { id: string } }>('/eSCL/ScanJobs/:id/NextDocument', async (request, reply) => {
    const job = jobs.find(({ id }) => id === request.params.id);
    if (!job || job.state !== 'Processing') return reply.code(404).send();
    if (machine.busy) return reply.code(503).header('retry-after', '1').send();
    machine.busy = true;
    try {
      const picture = await nextSide(machine, job, hurry, sides++);
      if (!picture) return await reply.code(404).send();
      job.completed++;
      return await reply.type('image/jpeg').send(picture);
    } finally {
      machine.busy = false;
    }
  });
  app.delete<{ Params: { id: string } }>('/eSCL/ScanJobs/:id', async (request, reply) => {
    const job = jobs.find(({ id }) => id === request.params.id);
    if (!job) return reply.code(404).send();
    if (job.state === 'Processing') Object.assign(job, { state: 'Canceled', reason: 'JobCanceledByUser' });
    return reply.code(200).send();
  });
}

/** Scans one more side of a job; undefined when there is none, and the job is then over. */
async function nextSide(machine: Machine, job: Job, hurry: number, seed: number): Promise<Buffer | undefined> {
  const time = Math.min(LONGEST_MS, SIDE_MS * (job.resolution / 200) ** 2) / hurry;
  const scan = async (sheet: LoadedSheet, side: 'front' | 'back') => {
    await sleep(time);
    return scanSide(
      sheet[side],
      sheet[side === 'front' ? 'back' : 'front'],
      job.area,
      job.resolution,
      job.colour,
      job.source,
      seed,
    );
  };
  if (job.source === 'glass') {
    if (job.completed > 0) {
      Object.assign(job, { state: 'Completed', reason: 'JobCompletedSuccessfully' });
      return undefined;
    }
    const empty = await blankSide(595, 842);
    return scan(machine.glass ?? { name: 'nothing', front: empty, back: empty }, 'front');
  }
  if (job.back) {
    const sheet = job.back;
    job.back = undefined;
    return scan(sheet, 'back');
  }
  await machine.readyToDraw();
  const drawn = machine.draw();
  if (drawn === null || typeof drawn === 'string') {
    const wrong = drawn !== null;
    Object.assign(job, {
      state: wrong ? 'Aborted' : 'Completed',
      reason: wrong ? 'ErrorsDetected' : 'JobCompletedSuccessfully',
    });
    return undefined;
  }
  if (job.bothSides) job.back = drawn;
  return scan(drawn, 'front');
}

function feederState({ trouble, feeder }: Machine): string {
  if (trouble === 'jam') return 'ScannerAdfJam';
  if (trouble === 'coverOpen') return 'ScannerAdfHatchOpen';
  return feeder.length > 0 ? 'ScannerAdfLoaded' : 'ScannerAdfEmpty';
}

/** What a client asks for; undefined when this scanner can't do it. */
function readSettings(body: string): Settings | undefined {
  let asked: Record<string, unknown>;
  try {
    asked = (xml.parse(body) as { ScanSettings?: Record<string, unknown> }).ScanSettings ?? {};
  } catch {
    return undefined;
  }
  const source = asked.InputSource === 'Feeder' ? 'feeder' : 'glass';
  const largest = source === 'feeder' ? FEEDER : GLASS;
  const regions = (asked.ScanRegions as { ScanRegion?: Record<string, string> } | undefined)?.ScanRegion ?? {};
  const number = (value: unknown, otherwise: number) => (value === undefined ? otherwise : Number(value));
  const area = {
    x: number(regions.XOffset, 0),
    y: number(regions.YOffset, 0),
    width: number(regions.Width, largest.width),
    height: number(regions.Height, largest.height),
  };
  const colour = (asked.ColorMode ?? 'RGB24') as ColourMode;
  const resolution = number(asked.XResolution, 300);
  const known = RESOLUTIONS.includes(resolution) && ['BlackAndWhite1', 'Grayscale8', 'RGB24'].includes(colour);
  const inside =
    Object.values(area).every((value) => Number.isFinite(value) && value >= 0) &&
    area.x + area.width <= largest.width &&
    area.y + area.height <= largest.height &&
    area.width > 0 &&
    area.height > 0;
  if (!known || !inside) return undefined;
  return { source, bothSides: asked.Duplex === 'true' && source === 'feeder', colour, resolution, area };
}
