import { FiledBefore, PaperLike, suggestFolder } from '@crow/core/filing/suggestFolder';
import { Chance } from './piles/chance';

/**
 * Files made papers one after the other as a person would, and says how often the folder suggested is the right one, by how many
 * papers the folders held before: node scripts/bench.mjs folders [SEEDS] [FIRST]
 * A third of the papers come from senders never seen before; some senders belong to two folders, told apart by what the paper is
 * about; one word in thirty is misread, and one sender in ten.
 */
const seeds = Number(process.argv[2] ?? 20);
const first = Number(process.argv[3] ?? 1);

const TOPICS: Record<string, string> = {
  'Workshop/Yarn':
    'skein cone warp weft lambswool merino linen cotton tex weight spool mill fibre carded worsted undyed',
  'Workshop/Dyeing': 'dye indigo madder mordant alum vat bath shade litres pigment fixing lot recipe swatch',
  'Workshop/Rent': 'unit lease landlord rent quarter premises yard tenancy service charge deposit',
  'Workshop/Insurance': 'policy premium cover liability claim insured excess renewal sum contents schedule',
  Fairs: 'stall pitch craft fair booking exhibitor table market weekend visitors pass marquee',
  Post: 'parcel tracking postage weight recipient signed label counter stamp delivery depot',
  'Home/Energy': 'kwh meter reading tariff electricity gas standing charge supply consumption unit rate',
  'Home/Council': 'council tax band property valuation household waste collection payment instalment arrears',
  'Home/Vet': 'cat vaccination consultation dose tablet practice worming booster animal treatment',
  'Home/School': 'pupil term trip school class teacher parents consent uniform lunch headteacher',
};
const COMMON =
  'invoice date total amount due payment bank account number customer please thank you vat net reference page street harbour wickford loom castellane imre terms days order quantity price description balance paid card'.split(
    ' ',
  );
const SYLLABLES = 'bra mar tol fen wick dal ro sil tham ker ost ley hur pen gar nor'.split(' ');
const FOLDERS = Object.keys(TOPICS);
const NAMED = FOLDERS.map((path) => ({ id: path, path }));

const right = new Map<string, { right: number; said: number; among: number; all: number }>();
for (let seed = first; seed < first + seeds; seed++) {
  const chance = new Chance(seed * 101);
  const pick = <Item>(items: readonly Item[]): Item => chance.pick(items);
  const invented = () =>
    `${pick(SYLLABLES)}${pick(SYLLABLES)}${pick(SYLLABLES)} ${pick(['ltd', 'co', 'works', 'and sons', 'gmbh'])}`;
  const senders = new Map(FOLDERS.map((folder) => [folder, Array.from({ length: 4 }, invented)]));
  // Two senders that belong to two folders each.
  senders.get('Home/Energy')!.push('tarn power');
  senders.get('Workshop/Rent')!.push('tarn power');
  senders.get('Workshop/Yarn')!.push('marlowe works');
  senders.get('Workshop/Dyeing')!.push('marlowe works');
  const misread = (word: string) => (chance.of(1 / 30) ? word.replace(/[aeiou]/, 'c') : word);
  const make = (folder: string): PaperLike => {
    const topic = TOPICS[folder].split(' ');
    const vendor = chance.of(0.33) ? invented() : pick(senders.get(folder)!);
    const words = new Set([
      ...Array.from({ length: 5 }, () => misread(pick(topic))),
      ...Array.from({ length: 14 }, () => misread(pick(COMMON))),
      // And what stands on any paper: a few words of other topics, and names.
      ...Array.from({ length: 3 }, () => pick(TOPICS[pick(FOLDERS)].split(' '))),
      ...vendor.split(' '),
      ...Array.from({ length: 4 }, () => pick(SYLLABLES) + pick(SYLLABLES)),
    ]);
    return {
      vendor: chance.of(0.1) ? undefined : vendor,
      kind: pick(['invoice', 'receipt', 'letter']),
      words: [...words],
    };
  };
  const filed: FiledBefore[] = [];
  for (let number = 0; number < 25 * FOLDERS.length; number++) {
    const folder = pick(FOLDERS);
    const paper = make(folder);
    const held = filed.length / FOLDERS.length;
    const { suggestion, likely } = suggestFolder(paper, filed, NAMED);
    const band = held < 2 ? 'under 2' : held < 5 ? '2 to 5' : held < 10 ? '5 to 10' : '10 and more';
    const count = right.get(band) ?? { right: 0, said: 0, among: 0, all: 0 };
    count.all++;
    if (suggestion) count.said++;
    if (suggestion?.folderId === folder) count.right++;
    if (likely.includes(folder)) count.among++;
    right.set(band, count);
    filed.unshift({ ...paper, folderId: folder });
  }
}
for (const [band, { right: good, said, among, all }] of right)
  console.log(
    `${band} papers a folder: right ${(good / all).toFixed(3)} of all, ${(good / said).toFixed(3)} of ${said} said, among the three likeliest ${(among / all).toFixed(3)}, ${all} papers`,
  );
