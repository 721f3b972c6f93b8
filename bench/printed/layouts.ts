import { Chance } from '../piles/chance';

const WORDS =
  'harbour winter slate lantern careful paper season cotton meadow quiet between their market letter window under around timber bridge morning several garden because river number silver farmer evening copper station across number weather kitchen passage through autumn village stone basket former little record public follow simple narrow further private always entire corner island second valley leather journey remain pattern chapel orchard captain shelter granite ferry gallery mason bakery tenant parish cellar beacon causeway dunes heather'.split(
    ' ',
  );
const NAMES =
  'Ashcombe Birling Caddon Dunmore Elwick Fenwick Garstang Hollin Inver Jarrow Keswick Lorton Marsden Norley Oakham Penrith Quorn Rothley Selby Thirsk'.split(
    ' ',
  );

const words = (chance: Chance, count: number) => Array.from({ length: count }, () => chance.pick(WORDS));
const sentence = (chance: Chance) => {
  const [first, ...rest] = words(chance, chance.whole(6, 15));
  return `${first[0].toUpperCase()}${first.slice(1)} ${rest.join(' ')}.`;
};
const prose = (chance: Chance, sentences: number) =>
  Array.from({ length: sentences }, () => sentence(chance)).join(' ');
const paragraphs = (chance: Chance, count: number, sentences: number) =>
  Array.from({ length: count }, () => `<p>${prose(chance, sentences)}</p>`).join('');
const money = (chance: Chance, most: number) =>
  `${chance.whole(0, most)}.${String(chance.whole(0, 99)).padStart(2, '0')}`;
const rows = (count: number, row: (at: number) => string) => Array.from({ length: count }, (_, at) => row(at)).join('');

export interface PrintedLayout {
  name: string;
  /** Style of its body, and how large the sheet is. */
  style: string;
  body: (chance: Chance) => string;
}

const GRID = 'table{border-collapse:collapse;width:100%} td,th{border:0.6pt solid #000;padding:1pt 3pt}';

/** Layouts of printed pages, each unlike the others in how its text stands. */
export const LAYOUTS: PrintedLayout[] = [
  {
    name: 'grid of figures',
    style: 'font:8.5pt "DejaVu Sans Mono"',
    body: (chance) =>
      `<style>${GRID}</style><h3>Table of readings</h3><table><tr>${rows(8, (at) => `<th>No. ${at + 1}</th>`)}</tr>${rows(34, () => `<tr>${rows(8, () => `<td>${chance.whole(0, 9) < 4 ? `1${chance.whole(0, 999)}` : money(chance, 1999)}</td>`)}</tr>`)}</table>`,
  },
  {
    name: 'three columns',
    style: 'font:9pt "Liberation Serif"; text-align:justify',
    body: (chance) =>
      `<h1 style="text-align:center">The ${chance.pick(NAMES)} Courier</h1><div style="columns:3;column-gap:14pt;column-rule:0.5pt solid #000">${paragraphs(chance, 12, 5)}</div>`,
  },
  {
    name: 'four narrow columns of notices',
    style: 'font:7.5pt "Liberation Sans Narrow","Liberation Sans"',
    body: (chance) =>
      `<div style="columns:4;column-gap:8pt">${rows(26, () => `<p style="margin:0 0 4pt;border-bottom:0.4pt solid #000"><b>${chance.pick(NAMES).toUpperCase()}</b> ${prose(chance, 2)} Tel. 0${chance.whole(1000, 9999)} ${chance.whole(100000, 999999)}</p>`)}</div>`,
  },
  {
    name: 'price list with leaders',
    style: 'font:10pt "Liberation Serif"',
    body: (chance) =>
      `<style>.r{display:flex} .r span{overflow:hidden;white-space:nowrap;flex:1} .r i{font-style:normal} .r span u{text-decoration:none;visibility:visible;font-size:0}</style><h2>Prices from April</h2>${rows(30, () => `<div class=r><i>${words(chance, 3).join(' ')}</i><b style="flex:1;border-bottom:1.2pt dotted #000;margin:0 3pt 3pt"></b><i>£${money(chance, 300)}</i></div>`)}`,
  },
  {
    name: 'form of boxes',
    style: 'font:8pt "Liberation Sans"',
    body: (chance) =>
      `<style>${GRID} td{height:26pt;vertical-align:top}</style><h2>Application ${chance.whole(100, 999)}/B</h2><table>${rows(9, (at) => `<tr><td><small>${at * 2 + 1}. ${words(chance, 3).join(' ')}</small><br><b>${chance.pick(NAMES)} ${chance.whole(1, 99)}</b></td><td><small>${at * 2 + 2}. ${words(chance, 4).join(' ')}</small><br><b>${chance.whole(1, 28)}/${chance.whole(10, 12)}/2026</b></td></tr>`)}</table><p>${prose(chance, 5)}</p>`,
  },
  {
    name: 'timetable',
    style: 'font:9pt "DejaVu Sans"',
    body: (chance) =>
      `<style>td,th{padding:1pt 6pt;text-align:right} td:first-child{text-align:left;border-right:1pt solid #000} th{background:#222;color:#fff} table{border-collapse:collapse}</style><h2>Weekdays</h2><table><tr><th>Stop</th>${rows(9, (at) => `<th>${at + 11}</th>`)}</tr>${rows(20, (at) => `<tr><td>${NAMES[at]}</td>${rows(9, (bus) => `<td>${String(6 + bus).padStart(2, '0')}${String((at * 3 + chance.whole(0, 2)) % 60).padStart(2, '0')}</td>`)}</tr>`)}</table><p>${prose(chance, 3)}</p>`,
  },
  {
    name: 'two languages side by side',
    style: 'font:9.5pt "Liberation Serif"',
    body: (chance) =>
      `<style>td{vertical-align:top;width:50%;padding:0 8pt} table{width:100%}</style><h2 style="text-align:center">Rules of the house</h2><table>${rows(9, (at) => `<tr><td>${at + 1}. ${prose(chance, 3)}</td><td>${at + 1}. ${prose(chance, 3)}</td></tr>`)}</table>`,
  },
  {
    name: 'report with sidebar and footnotes',
    style: 'font:10.5pt "Liberation Serif"; text-align:justify',
    body: (chance) =>
      `<div style="float:right;width:32%;background:#ddd;padding:6pt;margin:0 0 8pt 12pt;font:8.5pt Liberation Sans"><b>${words(chance, 3).join(' ')}</b><p>${prose(chance, 5)}</p></div><h1>${words(chance, 4).join(' ')}</h1>${paragraphs(chance, 5, 5)}<hr style="width:30%;margin-left:0"><div style="font-size:7.5pt">1 ${prose(chance, 2)}<br>2 ${prose(chance, 2)}</div>`,
  },
  {
    name: 'list of members',
    style: 'font:8.5pt "Liberation Sans"',
    body: (chance) =>
      `<h3>Members</h3><div style="columns:2;column-gap:20pt">${rows(70, () => `<div style="display:flex;justify-content:space-between"><span>${chance.pick(NAMES)}, ${chance.pick(NAMES)[0]}.</span><span>${chance.whole(1, 99)} ${chance.pick(WORDS)} lane</span><span>${chance.whole(100, 999)}</span></div>`)}</div>`,
  },
  {
    name: 'ledger with ruled columns',
    style: 'font:10pt "Liberation Mono"',
    body: (chance) =>
      `<style>table{border-collapse:collapse;width:100%;border:1.5pt solid #000} td,th{border-left:0.5pt solid #000;border-right:0.5pt solid #000;padding:0 2pt;line-height:1.25} th{border-bottom:1pt solid #000} .n{text-align:right}</style><h3>Cash book</h3><table><tr><th>Day</th><th>Particulars</th><th>Folio</th><th>In</th><th>Out</th></tr>${rows(40, () => `<tr><td>${chance.whole(1, 30)}</td><td>${words(chance, 2).join(' ')}</td><td>${chance.whole(1, 99)}</td><td class=n>${chance.of(0.4) ? money(chance, 200) : ''}</td><td class=n>1${money(chance, 99)}</td></tr>`)}</table>`,
  },
  {
    name: 'table drawn with signs',
    style: 'font:9pt "DejaVu Sans Mono"; white-space:pre',
    body: (chance) => {
      const line = `+${['-'.repeat(6), '-'.repeat(22), '-'.repeat(10), '-'.repeat(10)].join('+')}+`;
      const cells = (some: string[]) =>
        `|${some.map((each, at) => (at < 2 ? each.padEnd([6, 22][at]) : each.padStart(10))).join('|')}|`;
      return [
        'STOCK LIST  WAREHOUSE 3',
        line,
        cells(['No', 'Article', 'Pieces', 'Value']),
        line,
        ...Array.from({ length: 30 }, (_, at) =>
          cells([
            String(at + 101),
            words(chance, 2).join(' ').slice(0, 22),
            String(chance.whole(1, 900)),
            money(chance, 900),
          ]),
        ),
        line,
      ].join('\n');
    },
  },
  {
    name: 'calendar',
    style: 'font:11pt "Liberation Sans"',
    body: (chance) =>
      `<style>${GRID} td{height:60pt;vertical-align:top;width:14%} small{font-size:7pt}</style><h1>October 2026</h1><table><tr>${rows(7, (at) => `<th>${['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'][at]}</th>`)}</tr>${rows(5, (week) => `<tr>${rows(7, (day) => `<td><b>${week * 7 + day + 1}</b>${chance.of(0.5) ? `<br><small>${words(chance, 3).join(' ')}</small>` : ''}</td>`)}</tr>`)}</table>`,
  },
  {
    name: 'underlined and tightly set',
    style: 'font:10pt/1.02 "Liberation Serif"',
    body: (chance) =>
      `<h2><u>${words(chance, 4).join(' ')}</u></h2>${rows(6, () => `<p>${prose(chance, 3)} <u>${sentence(chance)}</u> ${prose(chance, 2)} <i>${sentence(chance)}</i></p>`)}`,
  },
  {
    name: 'contents',
    style: 'font:11pt "Liberation Serif"',
    body: (chance) =>
      `<style>.r{display:flex} .d{flex:1;overflow:hidden;white-space:nowrap;direction:rtl}</style><h1>Contents</h1>${rows(28, (at) => `<div class=r style="padding-left:${(at % 3) * 14}pt"><span>${Math.floor(at / 3) + 1}.${(at % 3) + 1} ${words(chance, 3).join(' ')}</span><span style="flex:1;border-bottom:1pt dotted #000;margin:0 3pt 3pt"></span><span>${at * 4 + 1}</span></div>`)}`,
  },
  {
    name: 'checklist',
    style: 'font:10pt "DejaVu Sans"',
    body: (chance) =>
      `<h2>Before you leave</h2>${rows(22, () => `<div style="display:flex;align-items:center;margin:3pt 0"><span style="width:9pt;height:9pt;border:1pt solid #000;margin-right:8pt"></span>${words(chance, 5).join(' ')}<span style="flex:1;border-bottom:0.6pt solid #000;margin-left:10pt;height:9pt"></span></div>`)}`,
  },
  {
    name: 'spaced headings and initials',
    style: 'font:11pt "Liberation Serif"; text-align:justify',
    body: (chance) =>
      `<style>p::first-letter{font-size:34pt;float:left;line-height:0.85;padding-right:3pt}</style>${rows(4, () => `<h3 style="letter-spacing:5pt;text-align:center;text-transform:uppercase">${words(chance, 2).join(' ')}</h3><p>${prose(chance, 5)}</p>`)}`,
  },
  {
    name: 'heads that stand upright',
    style: 'font:9pt "Liberation Sans"',
    body: (chance) =>
      `<style>${GRID} .u{writing-mode:vertical-rl;transform:rotate(180deg);height:70pt} td{text-align:center}</style><table><tr><th></th>${rows(10, () => `<th><span class=u>${chance.pick(WORDS)}</span></th>`)}</tr>${rows(18, (at) => `<tr><td>${NAMES[at]}</td>${rows(10, () => `<td>${chance.whole(1, 99)}</td>`)}</tr>`)}</table>`,
  },
  {
    name: 'combs of boxes',
    style: 'font:9pt "Liberation Sans"',
    body: (chance) =>
      `<style>.c span{display:inline-block;width:13pt;height:16pt;border:0.6pt solid #000;margin-right:-0.6pt;text-align:center;line-height:16pt}</style><h2>Transfer order</h2>${rows(12, () => `<div>${words(chance, 2).join(' ')}</div><div class=c>${[...`${chance.pick(NAMES).toUpperCase()}${chance.whole(1000, 99999)}`].map((letter) => `<span>${letter}</span>`).join('')}</div>`)}`,
  },
];
