import { PDFDocument } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { endpoints } from '@crow/contract/endpoints';
import { Fact, Page } from '../platform/entities';
import { textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';

let room: TestRoom;
beforeEach(async () => void (room = await TestRoom.open()));
afterEach(() => room.close());

const read = (id: string) => room.ask(endpoints.readDocument, { params: { id } });
const valueOf = async (id: string, name: string) => (await read(id)).facts.find((fact) => fact.name === name);

const INVOICE = 'Saltgate Yarns\nInvoice\nInvoice no. 1302\nDate 11 November 2026\nTwo cones of warp\nTotal £ 186.60';

describe('a paper that is here already', () => {
  it('is told by sender and number, or by sender, date and total', async () => {
    const first = await room.documentOf('a.pdf', await textPdf(INVOICE));
    await room.file(first, 'First', 'Yarn');
    const again = await room.documentOf('b.pdf', await textPdf(`${INVOICE}\nCopy`));
    expect((await read(again)).duplicates).toEqual([
      { id: first, name: 'First', state: 'filed', folderId: expect.any(String), why: 'the same sender and number' },
    ]);
    const unnumbered = await room.documentOf('c.pdf', await textPdf(INVOICE.replace('Invoice no. 1302\n', '')));
    expect((await read(unnumbered)).duplicates.map(({ why }) => why)).toContain('the same sender, date and total');
  });

  it('is not one with another number, day or total', async () => {
    await room.documentOf('a.pdf', await textPdf(INVOICE));
    const next = INVOICE.replace('1302', '1417').replace('11 November', '2 December').replace('186.60', '186.90');
    const other = await room.documentOf('b.pdf', await textPdf(next));
    expect((await read(other)).duplicates).toEqual([]);
    // The rent of the next quarter: the same words and the same total.
    const quarter = INVOICE.replace('1302', '1502').replace('11 November 2026', '11 February 2027');
    expect((await read(await room.documentOf('c.pdf', await textPdf(quarter)))).duplicates).toEqual([]);
  });
});

it('knows a drawing again by its look, and tells it from another one', async () => {
  const drawing = (path: string, turn = 0) =>
    sharp(
      Buffer.from(
        `<svg xmlns="http://www.w3.org/2000/svg" width="800" height="1100"><rect width="800" height="1100" fill="#fff"/>
         <g transform="rotate(${turn} 400 550)" fill="none" stroke="#223" stroke-width="22"><path d="${path}"/></g></svg>`,
      ),
    )
      .withMetadata({ density: 96 })
      .jpeg()
      .toBuffer();
  const shawl = 'M100 150 L700 200 L620 900 L180 860 Z M150 300 L650 330 M170 600 L640 620';
  const loom = 'M150 900 L400 150 L650 900 M230 650 L570 650 M120 1000 L680 1000 M400 150 L400 650';
  const first = await room.documentOf('a.jpg', await drawing(shawl));
  const again = await room.documentOf('b.jpg', await drawing(shawl, 0.4));
  const other = await room.documentOf('c.jpg', await drawing(loom));
  expect((await read(again)).duplicates).toMatchObject([{ id: first, why: 'the same look' }]);
  expect((await read(other)).duplicates).toEqual([]);
});

it('says what a letter is about, where it stands', async () => {
  const letter =
    'Harbour Council\n12 March 2026\nDear Mr Castellane\nRe: Parking in Netmakers Yard\nThe yard will be closed to cars from May on.\nYours sincerely\nA. Pell';
  const id = await room.documentOf('a.pdf', await textPdf(letter));
  expect(await valueOf(id, 'subject')).toMatchObject({
    value: 'Parking in Netmakers Yard',
    box: [expect.any(Number), expect.any(Number), expect.any(Number), expect.any(Number)],
  });
});

it('finds tax by rate, and says what does not add up, as the facts are now', async () => {
  const bill =
    'Saltgate Yarns\nInvoice\nInvoice no. 1302\nDate 11 November 2026\nNet £ 262.90\nVAT 20 % £ 44.16\nVAT 5 % £ 2.11\nTotal £ 309.17';
  const id = await room.documentOf('a.pdf', await textPdf(bill));
  const before = await read(id);
  expect(before.taxes.map(({ rate, tax }) => [rate, tax])).toEqual([
    [20, 44.16],
    [5, 2.11],
  ]);
  expect(before.checks).toEqual([]);
  const change = (value: string) => room.ask(endpoints.changeFact, { params: { id, name: 'total' }, body: { value } });
  expect((await change('310.17')).checks).toEqual(['262.90 and 46.27 tax are 309.17, but the total is 310.17.']);
  expect((await change('309.17')).checks).toEqual([]);
});

it('tells what a paper says that its facts could be, with its place, and who sent other papers', async () => {
  const bill =
    'Saltgate Yarns\nInvoice no. 1302\nDate 11 November 2026\nPay by 25 November 2026\nNet £ 262.90\nVAT 20 % £ 52.58\nTotal £ 315.48';
  const before = await room.documentOf('a.pdf', await textPdf('Harbour Bank plc\nLetter\n3 November 2026'));
  await room.ask(endpoints.changeFact, { params: { id: before, name: 'vendor' }, body: { value: 'Harbour Bank' } });
  const id = await room.documentOf('b.pdf', await textPdf(bill));
  const { days, sums, numbers, names, rates, currencies } = await room.ask(endpoints.listChoices, { params: { id } });
  const values = (choices: { value: string }[]) => choices.map(({ value }) => value);
  expect(days.map(({ value, beside }) => [value, beside])).toEqual([
    ['2026-11-11', 'Date'],
    ['2026-11-25', 'Pay by'],
  ]);
  expect(values(sums)).toEqual(['315.48', '262.90', '52.58']);
  expect(values(numbers)).toEqual(['1302']);
  expect(names).toMatchObject([{ value: 'Saltgate Yarns' }, { value: 'Harbour Bank', pageId: null, box: null }]);
  expect([values(rates), values(currencies)]).toEqual([['20'], ['GBP']]);
  const { pageList } = await read(id);
  for (const { pageId, box } of [...days, ...sums]) {
    expect(pageId).toBe(pageList[0].id);
    expect(box!.every((share) => share >= 0 && share <= 1)).toBe(true);
  }
});

it('asks a paper again for what its kind says, when a person says that it is of another', async () => {
  const paper =
    'Harbour Bank plc\nStatement\nStatement no. 11\nDate 3 November 2026\nOpening balance £ 120.00\nClosing balance £ 96.50';
  const id = await room.documentOf('a.pdf', await textPdf(paper));
  expect(await valueOf(id, 'opening')).toMatchObject({ value: '120.00' });
  expect(await valueOf(id, 'closing')).toMatchObject({ value: '96.50' });
  const change = (value: string) => room.ask(endpoints.changeFact, { params: { id, name: 'kind' }, body: { value } });
  const named = (document: { facts: { name: string }[] }) => document.facts.map(({ name }) => name);
  expect(named(await change('letter'))).not.toContain('opening');
  expect(named(await change('statement'))).toContain('opening');
});

it('takes a paper of the same sender and form for what a person said of the last one', async () => {
  const slip = (number: number) =>
    textPdf(
      `Saltgate Yarns\nCounter slip\nInvoice no. ${number}\nDate 11 November 2026\nTwo cones of warp\nTotal £ 18${number}.60`,
    );
  const first = await room.documentOf('a.pdf', await slip(1));
  expect(await valueOf(first, 'kind')).toMatchObject({ value: 'invoice', confirmed: false });
  await room.ask(endpoints.changeFact, { params: { id: first, name: 'kind' }, body: { value: 'receipt' } });
  const next = await room.documentOf('b.pdf', await slip(2));
  expect(await valueOf(next, 'kind')).toMatchObject({
    value: 'receipt',
    confirmed: false,
    why: 'as you said of such a paper from this sender',
  });
  const letter =
    'Saltgate Yarns\n12 March 2026\nDear Mr Castellane\nOur mill is closed in May.\nYours sincerely\nA. Pell';
  expect(await valueOf(await room.documentOf('c.pdf', await textPdf(letter)), 'kind')).toMatchObject({
    value: 'letter',
  });
});

it('tells both days that a date in figures may be, until a person takes one', async () => {
  const id = await room.documentOf('a.pdf', await textPdf('Saltgate Yarns\nInvoice\nDate 10/06/2026\nTotal 186.60'));
  expect(await valueOf(id, 'date')).toMatchObject({ value: '2026-06-10', other: '2026-10-06' });
  await room.ask(endpoints.changeFact, { params: { id, name: 'date' }, body: { value: '2026-10-06' } });
  expect(await valueOf(id, 'date')).toMatchObject({ value: '2026-10-06', other: null });
});

it('knows what a statement books, which comes out as a spreadsheet', async () => {
  const statement = `Saltgate Savings
Statement of account
30 September 2026
Opening balance 512.40
02/09/2026 Warp and weft 74.00 438.40
09/09/2026 Scarf sold 120.00 558.40
Closing balance 558.40`;
  const id = await room.documentOf('a.pdf', await textPdf(statement));
  const { bookings, checks } = await read(id);
  expect(bookings.map(({ text, amount }) => [text, amount])).toEqual([
    ['Warp and weft', -74],
    ['Scarf sold', 120],
  ]);
  expect(checks).toEqual([]);
});

it('knows a sender again by what stands at the foot, once somebody has confirmed it', async () => {
  const paper = (head: string, number: number) =>
    textPdf(
      `${head}\nInvoice\nInvoice no. ${number}\nDate 11 November 2026\nTotal £ 186.60\nwww.saltgate.example\nIBAN DE64 7112 2003 0000 1122 33`,
    );
  const first = await room.documentOf('a.pdf', await paper('Sa1tgate Vams', 1));
  await room.ask(endpoints.changeFact, { params: { id: first, name: 'vendor' }, body: { value: 'Saltgate Yarns' } });
  await room.file(first, 'First', 'Yarn');
  const second = await room.documentOf('b.pdf', await paper('S lt ate Ya ns', 2));
  expect(await valueOf(second, 'vendor')).toMatchObject({ value: 'Saltgate Yarns', why: 'its bank account is known' });
});

it('says which pages seem to be missing, or there twice, by the numbers printed on them', async () => {
  const pages = [12, 13, 14, 16, 17, 17, 18].map(
    (number) => `The Harbour Weaver ${number}\nLinen takes the dye slowly.`,
  );
  const id = await room.documentOf('a.pdf', await textPdf(...pages));
  expect((await read(id)).checks).toEqual(['Page 15 seems to be missing.', 'Page 17 seems to be there twice.']);
});

it('says when check digits do not fit', async () => {
  const id = await room.documentOf('a.pdf', await textPdf(`${INVOICE}\nIBAN DE65 7112 2003 0000 1122 33`));
  expect((await read(id)).checks).toEqual([expect.stringContaining('DE65 7112 2003 0000 1122 33 do not fit')]);
});

describe('an electronic invoice', () => {
  const xml = `<?xml version="1.0" encoding="UTF-8"?>
<rsm:CrossIndustryInvoice xmlns:rsm="urn:rsm" xmlns:ram="urn:ram" xmlns:udt="urn:udt">
 <rsm:ExchangedDocument><ram:ID>SY-77</ram:ID>
  <ram:IssueDateTime><udt:DateTimeString format="102">20261111</udt:DateTimeString></ram:IssueDateTime></rsm:ExchangedDocument>
 <rsm:SupplyChainTradeTransaction>
  <ram:IncludedSupplyChainTradeLineItem>
   <ram:SpecifiedTradeProduct><ram:Name>Merino, 1 kg</ram:Name></ram:SpecifiedTradeProduct>
   <ram:SpecifiedLineTradeAgreement><ram:NetPriceProductTradePrice><ram:ChargeAmount>50.00</ram:ChargeAmount></ram:NetPriceProductTradePrice></ram:SpecifiedLineTradeAgreement>
   <ram:SpecifiedLineTradeDelivery><ram:BilledQuantity unitCode="KGM">2</ram:BilledQuantity></ram:SpecifiedLineTradeDelivery>
   <ram:SpecifiedLineTradeSettlement><ram:SpecifiedTradeSettlementLineMonetarySummation><ram:LineTotalAmount>100.00</ram:LineTotalAmount></ram:SpecifiedTradeSettlementLineMonetarySummation></ram:SpecifiedLineTradeSettlement>
  </ram:IncludedSupplyChainTradeLineItem>
  <ram:ApplicableHeaderTradeAgreement><ram:SellerTradeParty><ram:Name>Spinnerei Wiesengrund &amp; Co</ram:Name></ram:SellerTradeParty></ram:ApplicableHeaderTradeAgreement>
  <ram:ApplicableHeaderTradeSettlement><ram:InvoiceCurrencyCode>EUR</ram:InvoiceCurrencyCode>
   <ram:ApplicableTradeTax><ram:CalculatedAmount>19.00</ram:CalculatedAmount><ram:RateApplicablePercent>19.00</ram:RateApplicablePercent></ram:ApplicableTradeTax>
   <ram:SpecifiedTradeSettlementHeaderMonetarySummation><ram:TaxBasisTotalAmount>100.00</ram:TaxBasisTotalAmount>
    <ram:TaxTotalAmount currencyID="EUR">19.00</ram:TaxTotalAmount><ram:GrandTotalAmount>119.00</ram:GrandTotalAmount></ram:SpecifiedTradeSettlementHeaderMonetarySummation>
  </ram:ApplicableHeaderTradeSettlement>
 </rsm:SupplyChainTradeTransaction>
</rsm:CrossIndustryInvoice>`;

  async function withXml(content: string, name = 'factur-x.xml') {
    const pdf = await PDFDocument.load(await textPdf('Spinnerei Wiesengrund\nRechnung SY-77\nBetrag 119,00 EUR'));
    await pdf.attach(new TextEncoder().encode(content), name, { mimeType: 'text/xml' });
    return pdf.save();
  }

  it('inside a PDF is where the facts come from', async () => {
    const id = await room.documentOf('a.pdf', await withXml(xml));
    const { facts } = await read(id);
    expect(Object.fromEntries(facts.map(({ name, value }) => [name, value]))).toMatchObject({
      kind: 'invoice',
      vendor: 'Spinnerei Wiesengrund & Co',
      number: 'SY-77',
      date: '2026-11-11',
      currency: 'EUR',
      net: '100.00',
      tax: '19.00',
      taxRate: '19',
      total: '119.00',
    });
    expect(facts.every(({ confidence }) => confidence === 1)).toBe(true);
    // What stands on the page too says where.
    expect(facts.find(({ name }) => name === 'total')?.box).not.toBeNull();
  });

  it('that is a file by itself is drawn, and is kept as it came', async () => {
    const id = await room.documentOf('rechnung.xml', new TextEncoder().encode(xml));
    const { facts, pageList, lines } = await read(id);
    expect(Object.fromEntries(facts.map(({ name, value }) => [name, value]))).toMatchObject({
      kind: 'invoice',
      vendor: 'Spinnerei Wiesengrund & Co',
      number: 'SY-77',
      total: '119.00',
    });
    expect(lines.map(({ description }) => description)).toEqual(['Merino, 1 kg']);
    // What is drawn says it as well, and where.
    expect(facts.find(({ name }) => name === 'total')?.box).not.toBeNull();
    const { words } = await room.ask(endpoints.pageText, { params: { id: pageList[0].id } });
    expect(words.map(([text]) => text).join(' ')).toContain('Spinnerei Wiesengrund & Co');
    const { sourceFileId } = await room.context.database.source.manager.findOneByOrFail(Page, {
      id: pageList[0].id,
    });
    const original = await room.send(endpoints.originalFile, { params: { id: sourceFileId } });
    expect(original.raw.toString()).toBe(xml);
  });

  it('that takes back is a credit note, with what it takes back negative', async () => {
    const id = await room.documentOf(
      'gutschrift.xml',
      new TextEncoder().encode(`<?xml version="1.0" encoding="UTF-8"?>
<CreditNote xmlns="urn:oasis:names:specification:ubl:schema:xsd:CreditNote-2" xmlns:cbc="urn:cbc" xmlns:cac="urn:cac">
 <cbc:ID>G-12</cbc:ID><cbc:IssueDate>2026-11-12</cbc:IssueDate><cbc:DocumentCurrencyCode>EUR</cbc:DocumentCurrencyCode>
 <cac:BillingReference><cac:InvoiceDocumentReference><cbc:ID>SY-77</cbc:ID></cac:InvoiceDocumentReference></cac:BillingReference>
 <cac:AccountingSupplierParty><cac:Party><cac:PartyName><cbc:Name>Färberei Ährenfeld</cbc:Name></cac:PartyName></cac:Party></cac:AccountingSupplierParty>
 <cac:TaxTotal><cbc:TaxAmount currencyID="EUR">1.90</cbc:TaxAmount></cac:TaxTotal>
 <cac:LegalMonetaryTotal><cbc:TaxExclusiveAmount>10.00</cbc:TaxExclusiveAmount><cbc:TaxInclusiveAmount>11.90</cbc:TaxInclusiveAmount><cbc:PayableAmount>11.90</cbc:PayableAmount></cac:LegalMonetaryTotal>
 <cac:CreditNoteLine><cbc:CreditedQuantity>1</cbc:CreditedQuantity><cbc:LineExtensionAmount>10.00</cbc:LineExtensionAmount><cac:Item><cbc:Name>Kette</cbc:Name></cac:Item></cac:CreditNoteLine>
</CreditNote>`),
    );
    const { facts } = await read(id);
    expect(Object.fromEntries(facts.map(({ name, value }) => [name, value]))).toMatchObject({
      kind: 'credit note',
      vendor: 'Färberei Ährenfeld',
      number: 'G-12',
      reference: 'SY-77',
      total: '-11.90',
      tax: '-1.90',
    });
  });

  it.each([
    ['no XML at all', 'not <xml'],
    ['something else', '<?xml version="1.0"?><Invoice><Greeting>hello</Greeting></Invoice>'],
    ['an entity that grows', `<!DOCTYPE x [<!ENTITY a "${'b'.repeat(1000)}">]><x>&a;</x>`],
  ])('that is %s leaves the facts to reading', async (_, content) => {
    const id = await room.documentOf('a.pdf', await withXml(content));
    expect(await valueOf(id, 'kind')).toMatchObject({ value: 'invoice', why: expect.not.stringContaining('data') });
  });
});

it('keeps money in whole smallest units of the currency that the paper has, whenever that is said', async () => {
  const id = await room.documentOf('bill.pdf', await textPdf('Orrin Yarns\nInvoice\nTotal 1,200.00'));
  const set = (name: 'total' | 'currency', value: string) =>
    room.ask(endpoints.changeFact, { params: { id, name }, body: { value } });
  const total = async () => {
    const fact = await room.context.database.source.manager.findOneByOrFail(Fact, { documentId: id, name: 'total' });
    return [fact.value, fact.units, fact.digits, fact.currency];
  };
  await set('total', '1.200,00');
  await set('currency', 'EUR');
  expect(await total()).toEqual(['1200.00', 120000, 2, 'EUR']);
  await set('currency', 'JPY');
  expect(await total()).toEqual(['1200', 1200, 0, 'JPY']);
  await set('currency', '');
  await room.ask(endpoints.restoreFact, { params: { id, name: 'currency' } });
  expect(await total()).toEqual(['1200.00', 120000, 2, null]);
});

it('asks what waits again when a kind is added, and knows that kind from then on', async () => {
  const subscription = textPdf('Loom Guild\nAnnual subscription\nDate 3 November 2026\nTotal £ 46.00');
  const id = await room.documentOf('a.pdf', await subscription);
  const set = (value: string) => room.refusal(endpoints.changeFact, { params: { id, name: 'kind' }, body: { value } });
  expect((await set('membership')).happened).toContain('the kind must be one of receipt');
  await room.ask(endpoints.changeSettings, {
    body: { ownKinds: [{ name: 'membership', like: 'invoice', words: ['annual subscription'] }] },
  });
  expect(await valueOf(id, 'kind')).toMatchObject({ value: 'membership', confirmed: false });
  await room.ask(endpoints.changeFact, { params: { id, name: 'kind' }, body: { value: 'letter' } });
  await room.ask(endpoints.changeFact, { params: { id, name: 'kind' }, body: { value: 'membership' } });
  expect(await valueOf(id, 'total')).toMatchObject({ value: '46.00' });
});
