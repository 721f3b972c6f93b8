import { Browser, BrowserContext, BrowserContextOptions, chromium, Page } from 'playwright-core';
import { Session } from '@crow/demo/comeIn';
import { PATIENCE_MS } from './patience';

/**
 * Debian's Chromium, without a monitor and without reaching for the network.
 * @param film what its camera shows (YUV4MPEG2), over and over
 * @param home where it looks for certificates that are trusted (NSS)
 */
export function openBrowser({ film, home }: { film?: string; home?: string } = {}): Promise<Browser> {
  const camera = [
    '--use-fake-ui-for-media-stream',
    '--use-fake-device-for-media-stream',
    `--use-file-for-fake-video-capture=${film}`,
  ];
  return chromium.launch({
    executablePath: '/usr/bin/chromium',
    ...(home && { env: { ...process.env, HOME: home } as Record<string, string> }),
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      ...(film ? camera : []),
    ],
  });
}

/** A window in which every error of the page makes the test fail. */
export async function openWindow(
  browser: Browser,
  { address, cookie }: Session,
  path = '/',
  options: BrowserContextOptions = {},
): Promise<{ page: Page; context: BrowserContext; errors: string[] }> {
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    ...options,
  });
  const [name, value] = cookie.split('=');
  await context.addCookies([{ name, value, url: address, httpOnly: true, sameSite: 'Strict' }]);
  const page = await context.newPage();
  page.setDefaultTimeout(PATIENCE_MS);
  const errors: string[] = [];
  page.on('pageerror', (error) => errors.push(error.message));
  page.on(
    'console',
    (message) => message.type() === 'error' && errors.push(`${message.text()} ${message.location().url}`),
  );
  await page.goto(address + path);
  return { page, context, errors };
}
