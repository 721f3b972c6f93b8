import { ChildProcessWithoutNullStreams, spawn } from 'node:child_process';
import { Problem } from '@crow/contract/problems';

export interface ChildLimits {
  /** How long it may run. */
  seconds: number;
  /** How much address space it may take. */
  megabytes: number;
}

export interface ChildOptions {
  limits: ChildLimits;
  /** What it does, as the beginning of a sentence: “Drawing the page”. */
  what: string;
  input?: Uint8Array;
  environment?: Record<string, string>;
  /** The most that it may print; more ends it. */
  mostOutput?: number;
}

export interface ChildResult {
  /** The exit code; 128 and more when a signal ended it. */
  code: number;
  output: Buffer;
  errors: string;
}

const MOST_ERRORS = 20_000;
const MOST_OUTPUT = 256 * 1024 * 1024;

/** Starts a program with a limit on memory, and on the processor's time if one is given. It dies with this process. */
export function startChild(
  command: string,
  args: string[],
  { seconds, megabytes }: { seconds?: number; megabytes: number },
  environment: Record<string, string> = {},
): ChildProcessWithoutNullStreams {
  const limits = [`--as=${megabytes * 1024 * 1024}`, ...(seconds ? [`--cpu=${Math.ceil(seconds)}`] : []), '--core=0'];
  return spawn('prlimit', [...limits, 'setpriv', '--pdeathsig', 'KILL', command, ...args], {
    stdio: ['pipe', 'pipe', 'pipe'],
    env: { PATH: process.env.PATH, LANG: 'C.UTF-8', HOME: '/nonexistent', OMP_THREAD_LIMIT: '1', ...environment },
  });
}

/**
 * Runs a program with a limit on time and memory. It gets no shell, and dies with this process even if that is killed.
 * @throws Problem 'took-too-long' when the time is over; Error when it can't be started
 */
export async function runChild(command: string, args: string[], options: ChildOptions): Promise<ChildResult> {
  const { limits, what, input, environment, mostOutput = MOST_OUTPUT } = options;
  const child = startChild(command, args, limits, environment);
  const output: Buffer[] = [];
  let outputBytes = 0;
  let errors = '';
  let late = false;
  const timer = setTimeout(() => {
    late = true;
    child.kill('SIGKILL');
  }, limits.seconds * 1000);
  child.stdout.on('data', (piece: Buffer) => {
    outputBytes += piece.length;
    if (outputBytes > mostOutput) child.kill('SIGKILL');
    else output.push(piece);
  });
  child.stderr.on('data', (piece: Buffer) => {
    if (errors.length < MOST_ERRORS) errors += piece.toString();
  });
  // A child that ends without reading its input is judged by its exit code.
  child.stdin.on('error', () => undefined);
  child.stdin.end(input);
  try {
    const code = await new Promise<number>((resolve, reject) => {
      child.on('error', reject);
      child.on('close', (exit, signal) => resolve(exit ?? (signal ? 137 : 1)));
    });
    if (late) throw new Problem('took-too-long', { what, seconds: limits.seconds });
    return { code, output: Buffer.concat(output), errors };
  } finally {
    clearTimeout(timer);
  }
}
