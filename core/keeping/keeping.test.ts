import { BOOK_COUNTRIES } from '../ledger/books/taxCodes';
import { KINDS } from '../reading/facts/kindList';
import { proofFaults, ProofSigns, sayProofFault } from './proof';
import { KEEPING_RULES } from './rules';
import { judgeSheet, SheetPaper } from './sheets';

const TODAY = '2026-11-29';
const paper = (given: Partial<SheetPaper> = {}): SheetPaper => ({
  kind: 'invoice',
  day: '2024-05-17',
  ends: null,
  inBooks: true,
  about: 'Saltgate Yarns',
  ...given,
});
const judge = (given: Partial<SheetPaper>, country: (typeof BOOK_COUNTRIES)[number], today = TODAY) =>
  judgeSheet(paper(given), country, today);

it('lets vouchers go at once where a copy is a record, and says how long that is kept', () => {
  expect(judge({}, 'GB')).toMatchObject({ mayGoFrom: '2024-05-17', fileUntil: '2030-12-31' });
  expect(judge({}, 'DE')).toMatchObject({ mayGoFrom: '2024-05-17', fileUntil: '2032-12-31' });
  expect(judge({}, 'CH')).toMatchObject({ mayGoFrom: '2024-05-17', fileUntil: '2034-12-31' });
  expect(judge({}, 'US')).toMatchObject({ mayGoFrom: '2024-05-17', fileUntil: '2028-04-30' });
});

it('keeps them for years where the law wants the sheet', () =>
  expect(judge({}, 'FR')).toMatchObject({ mayGoFrom: '2031-01-01', fileUntil: '2034-12-31' }));

it('keeps what nobody could tell what it is, unless it proves an entry; payslips; and notices for a year', () => {
  expect(judge({ kind: 'other', inBooks: false }, 'GB').mayGoFrom).toBeNull();
  expect(judge({ kind: 'other' }, 'GB').mayGoFrom).toBe('2024-05-17');
  expect(judge({ kind: 'payslip' }, 'DE').mayGoFrom).toBeNull();
  expect(judge({ kind: 'notice', inBooks: false }, 'US').mayGoFrom).toBe('2025-05-18');
  expect(judge({ kind: 'letter', inBooks: false, about: 'Your parcel will arrive' }, 'GB').mayGoFrom).toBe(
    '2024-05-17',
  );
});

it('goes by the rule that holds today', () => expect(judge({}, 'DE', '2024-12-31').fileUntil).toBe('2034-12-31'));

it('keeps deeds for good, guarantees until they end, contracts as long as somebody can claim from them', () => {
  expect(judge({ kind: 'certificate' }, 'GB').mayGoFrom).toBeNull();
  expect(judge({ kind: 'certificate', ends: '2027-02-28' }, 'GB').mayGoFrom).toBe('2027-03-01');
  expect(judge({ kind: 'contract' }, 'DE').mayGoFrom).toBeNull();
  expect(judge({ kind: 'contract', ends: '2024-02-29' }, 'GB').mayGoFrom).toBe('2030-03-01');
});

it.each(['Guarantee for your boiler', 'Garantieschein', 'Arbeitszeugnis', 'Attestation de propriété', 'Deed of gift'])(
  'keeps what calls itself proof, whatever kind it is read as: %s',
  (about) => expect(judge({ kind: 'letter', about }, 'GB').mayGoFrom).toBeNull(),
);

it('knows a rule with its source for every kind in every country, in the books and outside', () => {
  for (const country of BOOK_COUNTRIES)
    for (const kind of KINDS)
      for (const inBooks of [true, false])
        for (const ends of [null, '2027-01-01']) {
          const { rule } = judge({ kind, inBooks, ends }, country);
          expect([rule.why, rule.source]).not.toContain('');
        }
});

it('has no rule that never holds', () => {
  const used = new Set(
    BOOK_COUNTRIES.flatMap((country) =>
      KINDS.flatMap((kind) =>
        [true, false].flatMap((inBooks) =>
          [null, '2027-01-01'].flatMap((ends) =>
            ['2024-06-01', TODAY].map((today) => judge({ kind, inBooks, ends }, country, today).rule),
          ),
        ),
      ),
    ),
  );
  expect(KEEPING_RULES.filter((rule) => !used.has(rule))).toEqual([]);
});

describe('a file stands for its sheet', () => {
  const proven: ProofSigns = {
    sha256: 'a',
    agreedSha256: 'a',
    differed: false,
    copiedSha256: 'a',
    unread: 0,
    illegible: 0,
    pagesMissing: false,
    doubtful: 0,
    misfits: false,
    troubled: false,
  };
  it('when nothing speaks against it', () => expect(proofFaults(proven)).toEqual([]));
  it.each<[Partial<ProofSigns>, string]>([
    [{ agreedSha256: null }, 'not-compared'],
    [{ agreedSha256: 'before' }, 'not-compared'],
    [{ differed: true }, 'differed'],
    [{ copiedSha256: 'before' }, 'not-copied'],
    [{ unread: 1 }, 'unread'],
    [{ illegible: 1 }, 'illegible'],
    [{ pagesMissing: true }, 'pages-missing'],
    [{ doubtful: 2 }, 'doubtful'],
    [{ misfits: true }, 'misfits'],
    [{ troubled: true }, 'troubled'],
  ])('not with %j', (but, fault) => {
    const faults = proofFaults({ ...proven, ...but });
    expect(faults).toEqual([fault]);
    expect(sayProofFault(faults[0])).toMatch(/^[a-z]/);
  });
});
