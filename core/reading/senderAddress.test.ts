import { senderAddress } from './senderAddress';
import { typed } from './testing/typed';

const on = (paper: string, name: string) => senderAddress(typed(paper).words, name);

it.each([
  [
    'below the name, of one line',
    'Halden & Firth Yarns Ltd\nMill Lane, Cressbrook CB4 1QA\nVAT no. GB 318 2247 06\n\nInvoice',
    'Halden & Firth Yarns Ltd',
    'Mill Lane, Cressbrook CB4 1QA',
  ],
  [
    'below the name, of several lines, with others among them',
    'Färberei Grünau GmbH\nTel. 0361 4477\nHinter der Mühle 12\n99817 Lindenau\n\nWickford Loom\n4 Netmakers Yard\nOrrin Harbour OH2 7LM',
    'Färberei Grünau GmbH',
    'Hinter der Mühle 12, 99817 Lindenau',
  ],
  [
    'behind the name in one line',
    'Rechnung\nSpinnerei Wiesengrund GmbH · Bachstraße 12 · 99817 Lindenau\n\nWickford Loom',
    'Spinnerei Wiesengrund GmbH',
    'Bachstraße 12, 99817 Lindenau',
  ],
  [
    'with a French code',
    'Filature du Val Clair\n8, rue des Tisserands\n59280 Armelle',
    'Filature du Val Clair',
    '8, rue des Tisserands, 59280 Armelle',
  ],
  [
    'with an American one',
    'Blue Mesa Fibers LLC\n210 Alder Street\nSilverton, CO 81433',
    'Blue Mesa Fibers LLC',
    '210 Alder Street, Silverton, CO 81433',
  ],
])('is found %s', (_, paper, name, address) => expect(on(paper, name)).toBe(address));

it.each([
  ['there is none', 'Quayside Parcels\nReceipt 5512\n2 October 2026\nTotal 3.20', 'Quayside Parcels'],
  ['the paper does not say the name', 'Invoice\nMill Lane 4\nCressbrook CB4 1QA', 'Halden & Firth Yarns Ltd'],
  [
    'what follows is far below, and another’s',
    'Quayside Parcels\n\n\n\n\n\nWickford Loom\n4 Netmakers Yard\nOrrin Harbour OH2 7LM',
    'Quayside Parcels',
  ],
])('is not made up where %s', (_, paper, name) => expect(on(paper, name)).toBe(''));
