import { ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { chromium } from 'playwright-core';
import WebSocket from 'ws';
import { freePort } from '@crow/server/cli/ports';
import { PATIENCE_MS } from './patience';

/** A browser that does what every browser can be asked to do by the standards for it: go somewhere, run a script, press and type. */
export interface Remote {
  goTo(address: string): Promise<void>;
  /** Makes the window so large, in CSS pixels; a bar of its own may take some of the height. */
  resize(width: number, height: number): Promise<void>;
  /** What an expression comes to in the page. */
  evaluate<Value>(expression: string): Promise<Value>;
  /** Presses at a place in the window, in CSS pixels. */
  press(x: number, y: number): Promise<void>;
  /** Types text; `\uE007` is Enter, as WebDriver has it. */
  type(text: string): Promise<void>;
  close(): Promise<void>;
}

export const ENTER = '\uE007';

const pressed = (x: number, y: number) => [
  {
    type: 'pointer',
    id: 'mouse',
    parameters: { pointerType: 'mouse' },
    actions: [
      { type: 'pointerMove', x: Math.round(x), y: Math.round(y), duration: 0 },
      { type: 'pointerDown', button: 0 },
      { type: 'pointerUp', button: 0 },
    ],
  },
];
const typed = (text: string) => [
  {
    type: 'key',
    id: 'keys',
    actions: [...text].flatMap((value) => [
      { type: 'keyDown', value },
      { type: 'keyUp', value },
    ]),
  },
];

async function whenReady<Result>(work: () => Promise<Result>): Promise<Result> {
  for (const until = Date.now() + PATIENCE_MS; ; await sleep(100)) {
    try {
      return await work();
    } catch (error) {
      if (Date.now() > until) throw error;
    }
  }
}

async function end(child: ChildProcess): Promise<void> {
  if (child.exitCode !== null || child.signalCode !== null) return;
  child.kill('SIGTERM');
  const insist = setTimeout(() => child.kill('SIGKILL'), 5000);
  await once(child, 'exit');
  clearTimeout(insist);
}

/** Debian's Firefox, by WebDriver BiDi. */
export async function openFirefox(): Promise<Remote> {
  const port = await freePort();
  const profile = mkdtempSync(join(tmpdir(), 'crow-firefox-'));
  const browser = spawn(
    'firefox-esr',
    [
      '--headless',
      '--no-remote',
      '--profile',
      profile,
      '--remote-debugging-port',
      `${port}`,
      '--width',
      '1280',
      '--height',
      '800',
    ],
    { stdio: 'ignore', env: { ...process.env, HOME: profile, MOZ_DISABLE_AUTO_SAFE_MODE: '1' } },
  );
  const socket = await whenReady(async () => {
    const trying = new WebSocket(`ws://127.0.0.1:${port}/session`);
    await once(trying, 'open');
    return trying;
  });
  const waiting = new Map<number, (answer: { result?: unknown; error?: string; message?: string }) => void>();
  socket.on('message', (data: Buffer) => {
    const answer = JSON.parse(data.toString()) as { id?: number; result?: unknown; error?: string; message?: string };
    if (answer.id !== undefined) waiting.get(answer.id)?.(answer);
  });
  let last = 0;
  const ask = <Result>(method: string, params: object): Promise<Result> => {
    const id = ++last;
    socket.send(JSON.stringify({ id, method, params }));
    return new Promise((resolve, reject) =>
      waiting.set(id, ({ result, error, message }) => {
        waiting.delete(id);
        if (error) reject(new Error(`${method}: ${error} ${message}`));
        else resolve(result as Result);
      }),
    );
  };
  await ask('session.new', { capabilities: {} });
  const { contexts } = await ask<{ contexts: { context: string }[] }>('browsingContext.getTree', {});
  const [{ context }] = contexts;
  await ask('browsingContext.setViewport', { context, viewport: { width: 1280, height: 800 } }).catch(() => undefined);
  return {
    goTo: async (url) => void (await ask('browsingContext.navigate', { context, url, wait: 'complete' })),
    resize: async (width, height) =>
      void (await ask('browsingContext.setViewport', { context, viewport: { width, height } })),
    evaluate: async <Value>(expression: string) => {
      const { result, exceptionDetails } = await ask<{
        result?: { value?: string };
        exceptionDetails?: { text: string };
      }>('script.evaluate', {
        expression: `JSON.stringify(${expression}) ?? 'null'`,
        target: { context },
        awaitPromise: true,
      });
      if (exceptionDetails) throw new Error(exceptionDetails.text);
      return JSON.parse(result?.value ?? 'null') as Value;
    },
    press: async (x, y) => void (await ask('input.performActions', { context, actions: pressed(x, y) })),
    type: async (text) => void (await ask('input.performActions', { context, actions: typed(text) })),
    close: async () => {
      socket.close();
      await end(browser);
      rmSync(profile, { recursive: true, force: true });
    },
  };
}

/**
 * What Debian's Chromium shows of a PDF in its own viewer, which it has only when nobody else started it.
 * @returns a picture of the window, PNG
 */
export async function pictureInChromium(
  address: string,
  shows: (picture: Buffer) => Promise<boolean>,
): Promise<Buffer> {
  const port = await freePort();
  const profile = mkdtempSync(join(tmpdir(), 'crow-chromium-'));
  const own = ['--headless=new', '--no-sandbox', '--no-first-run', `--user-data-dir=${profile}`];
  const window = ['--window-size=1000,1300', `--remote-debugging-port=${port}`, 'about:blank'];
  const child = spawn('chromium', [...own, ...window], { stdio: 'ignore' });
  try {
    const browser = await whenReady(() => chromium.connectOverCDP(`http://127.0.0.1:${port}`));
    const page = browser.contexts()[0].pages()[0];
    // The viewer never says that it is there.
    page.goto(address).catch(() => undefined);
    return await whenReady(async () => {
      const picture = await page.screenshot();
      if (!(await shows(picture))) throw new Error('the viewer does not show what it should');
      return picture;
    });
  } finally {
    await end(child);
    rmSync(profile, { recursive: true, force: true, maxRetries: 5 });
  }
}

/** Debian's WebKit, by WebDriver, on a screen that isn't there. */
export async function openWebKit(): Promise<Remote> {
  const screen = spawn('Xvfb', ['-displayfd', '3', '-screen', '0', '1300x900x24', '-nolisten', 'tcp'], {
    stdio: ['ignore', 'ignore', 'ignore', 'pipe'],
  });
  const [told] = (await once(screen.stdio[3]!, 'data')) as [Buffer];
  const port = await freePort();
  const home = mkdtempSync(join(tmpdir(), 'crow-webkit-'));
  const driver = spawn('WebKitWebDriver', [`--port=${port}`], {
    stdio: 'ignore',
    env: {
      ...process.env,
      DISPLAY: `:${told.toString().trim()}`,
      HOME: home,
      XDG_RUNTIME_DIR: home,
      LIBGL_ALWAYS_SOFTWARE: '1',
      WEBKIT_DISABLE_COMPOSITING_MODE: '1',
      WEBKIT_DISABLE_SANDBOX_THIS_IS_DANGEROUS: '1',
    },
  });
  const send = async <Result>(method: string, path: string, body?: object): Promise<Result> => {
    const response = await fetch(`http://127.0.0.1:${port}${path}`, {
      method,
      ...(body && { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }),
    });
    const { value } = (await response.json()) as { value: Result & { error?: string; message?: string } };
    if (!response.ok) throw new Error(`${path}: ${value.error} ${value.message}`);
    return value;
  };
  const binary = miniBrowser();
  const browser = { binary, args: ['--automation', '--geometry=1280x860'] };
  const { sessionId } = await whenReady(() =>
    send<{ sessionId: string }>('POST', '/session', {
      capabilities: { alwaysMatch: { 'webkitgtk:browserOptions': browser } },
    }),
  );
  const session = `/session/${sessionId}`;
  return {
    goTo: (url) => send('POST', `${session}/url`, { url }),
    resize: async (width, height) => void (await send('POST', `${session}/window/rect`, { width, height })),
    evaluate: <Value>(expression: string) =>
      send<Value>('POST', `${session}/execute/sync`, { script: `return ${expression}`, args: [] }),
    press: (x, y) => send('POST', `${session}/actions`, { actions: pressed(x, y) }),
    type: (text) => send('POST', `${session}/actions`, { actions: typed(text) }),
    close: async () => {
      await send('DELETE', session).catch(() => undefined);
      await end(driver);
      await end(screen);
      rmSync(home, { recursive: true, force: true });
    },
  };
}

/** Where Debian has WebKit's own small browser. */
function miniBrowser(): string {
  for (const machine of readdirSync('/usr/lib'))
    for (const version of ['webkit2gtk-4.1', 'webkit2gtk-4.0', 'webkitgtk-6.0']) {
      const path = join('/usr/lib', machine, version, 'MiniBrowser');
      if (existsSync(path)) return path;
    }
  throw new Error('WebKit’s MiniBrowser is not installed.');
}
