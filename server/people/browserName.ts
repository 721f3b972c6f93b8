const BROWSERS: [string, RegExp][] = [
  ['Edge', /\bEdg(?:A|iOS)?\//],
  ['Opera', /\bOPR\//],
  ['Firefox', /\b(?:Firefox|FxiOS)\//],
  ['Chrome', /\b(?:(?:Headless)?Chrome|CriOS|Chromium)\//],
  ['Safari', /\bSafari\//],
];
const SYSTEMS: [string, RegExp][] = [
  ['an iPhone', /\biPhone\b/],
  ['an iPad', /\biPad\b/],
  ['Android', /\bAndroid\b/],
  ['Windows', /\bWindows\b/],
  ['a Mac', /\bMac OS X\b/],
  ['Linux', /\bLinux\b/],
];

/** What a browser says that it is, in a few words: “Firefox on Linux”. @param agent its user-agent header */
export function browserName(agent: string | undefined): string {
  const said = (agent ?? '').slice(0, 400);
  const [browser, system] = [BROWSERS, SYSTEMS].map((names) => names.find(([, sign]) => sign.test(said))?.[0]);
  return [browser ?? 'A browser', system].filter(Boolean).join(' on ');
}
