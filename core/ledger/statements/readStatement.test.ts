import { alreadyThere } from './once';
import { readStatement } from './readStatement';
import { Statement, StatementError } from './statement';

const read = (text: string): Statement => readStatement(new TextEncoder().encode(text));
const short = ({ lines }: Statement) => lines.map(({ day, units, who }) => [day, units, who]);

describe('CSV of a bank', () => {
  it('with semicolons, commas before decimals, rows before the head, and debits with a minus, in Windows-1252', () => {
    const text = [
      '"Umsatzanzeige";"DE44500105175407324931"',
      '"Zeitraum";"01.02.2026 - 28.02.2026"',
      '',
      '"Buchungstag";"Wertstellung";"Auftraggeber / Empfänger";"Verwendungszweck";"Betrag";"Währung";"Saldo nach Buchung"',
      '"03.02.2026";"04.02.2026";"Färberei Grünau GmbH";"RE-2026-014";"-1.184,20";"EUR";"4.815,80"',
      '"05.02.2026";"05.02.2026";"Galerie Thorne";"Kauf eines Tuchs";"250,00";"EUR";"5.065,80"',
    ].join('\r\n');
    const bytes = Uint8Array.from([...text].map((sign) => sign.charCodeAt(0)));
    const statement = readStatement(bytes);
    expect(short(statement)).toEqual([
      ['2026-02-03', -118420, 'Färberei Grünau GmbH'],
      ['2026-02-05', 25000, 'Galerie Thorne'],
    ]);
    expect(statement.lines[0]).toMatchObject({ text: 'RE-2026-014', currency: 'EUR', balance: 481580 });
  });

  it('with what went out and what came in apart, and days of which only their order tells the form', () => {
    const statement = read(
      'Date,Description,Money out,Money in,Balance\n01/02/2026,HARBOUR FIBRE MILL,184.20,,900.00\n01/09/2026,AVERY STORES,,50.00,950.00\n02/04/2026,RENT,650.00,,300.00\n',
    );
    // The second of January, the ninth, the fourth of February: as years run, and not from February to September and back.
    expect(statement.lines.map(({ day, units }) => [day, units])).toEqual([
      ['2026-01-02', -18420],
      ['2026-01-09', 5000],
      ['2026-02-04', -65000],
    ]);
    expect(statement.lines[0].text).toContain('HARBOUR FIBRE MILL');
  });

  it('with the side in a column of its own', () => {
    const statement = read('Datum;Name;Betrag;Soll/Haben\n14.03.2026;Mill;184,20;S\n15.03.2026;Stores;50,00;H\n');
    expect(short(statement)).toEqual([
      ['2026-03-14', -18420, 'Mill'],
      ['2026-03-15', 5000, 'Stores'],
    ]);
  });

  it('without signs, which what is left on the account gives, the latest first', () => {
    const statement = read(
      'Posted\tWhat\tSum\tLeft\n2026-03-16\tRent\t650.00\t1,250.00\n2026-03-15\tStores\t100.00\t1,900.00\n2026-03-14\tMill\t184.20\t1,800.00\n',
    );
    expect(statement.lines.map(({ units }) => units).slice(0, 2)).toEqual([-65000, 10000]);
    expect(statement.signed).toBe(true);
  });

  it('of a card that lists what was paid, without saying so', () => {
    const statement = read('Date|Merchant|Amount\n14 Mar 2026|Mill|184.20\n15 Mar 2026|Post|3.10\n');
    expect([statement.signed, ...statement.lines.map(({ units }) => units)]).toEqual([false, 18420, 310]);
  });

  it.each([
    [
      'two days of which the second is when it was posted, months first',
      'Transaction Date,Post Date,Description,Category,Type,Amount,Memo\n03/14/2026,03/15/2026,MILL,Shopping,Sale,-184.20,\n03/16/2026,03/16/2026,Refund,,Return,50.00,\n',
      [-18420, 5000],
    ],
    [
      'a fee beside each amount',
      'Type,Completed Date,Description,Amount,Fee,Currency,State,Balance\nCARD,2026-03-14 08:00:00,Mill,-184.20,0.00,GBP,DONE,815.80\nTOPUP,2026-03-16 10:11:13,Top-Up,50.00,0.00,GBP,DONE,865.80\n',
      [-18420, 5000],
    ],
    [
      'a line that says only what was left before',
      'Date,Description,Amount,Running Bal.\n03/01/2026,Beginning balance,,"1,000.00"\n03/14/2026,"MILL, THE","-1,184.20",-184.20\n03/16/2026,AVERY,"2,000.00","1,815.80"\n',
      [-118420, 200000],
    ],
    [
      'thousands with blanks, texts of several lines, two columns of euros',
      'Compte;;;\nSolde;1 265,80;;\n\nDate;Libellé;Débit euros;Crédit euros\n14/03/2026;"VIR SEPA\nFACT 2291";1 184,20;\n16/03/2026;REMISE;;50,00\n',
      [-118420, 5000],
    ],
    [
      'thousands with strokes and years of two figures',
      "Datum;Buchungstext;Belastung;Gutschrift;Valuta;Saldo\n14.03.26;Zahlung;1'184.20;;14.03.26;3'815.80\n16.03.26;Gutschrift;;50.00;16.03.26;3'865.80\n",
      [-118420, 5000],
    ],
    ['no head', '14/03/2026,-184.20,MILL,HF-2291\n16/03/2026,50.00,AVERY,\n', [-18420, 5000]],
  ])('with %s', (_, text, units) => {
    const { lines } = read(text);
    expect(lines.map((line) => [line.day, line.units])).toEqual([
      ['2026-03-14', units[0]],
      ['2026-03-16', units[1]],
    ]);
  });

  it.each(['', 'Hello,\nthis is a letter.\n', '%PDF-1.7 nothing', 'a;b;c\n1;2;3\n'])('is none: %j', (text) =>
    expect(() => read(text)).toThrow(StatementError),
  );
});

it('OFX 1 and 2 give the same', () => {
  const sgml = `OFXHEADER:100\nDATA:OFXSGML\n\n<OFX><BANKMSGSRSV1><STMTTRNRS><STMTRS><CURDEF>GBP<BANKACCTFROM><ACCTID>12345678</BANKACCTFROM>
<BANKTRANLIST><STMTTRN><TRNTYPE>DEBIT<DTPOSTED>20260314120000[0:GMT]<TRNAMT>-184.20<FITID>A1<NAME>Marlowe &amp; Sons<MEMO>HF-2291</STMTTRN>
<STMTTRN><TRNTYPE>CREDIT<DTPOSTED>20260315<TRNAMT>+50.00<FITID>A2<NAME>Avery Stores</STMTTRN></BANKTRANLIST><LEDGERBAL><BALAMT>815.80<DTASOF>20260331</LEDGERBAL></STMTRS></STMTTRNRS></BANKMSGSRSV1></OFX>`;
  const xml = `<?xml version="1.0"?><?OFX OFXHEADER="200"?>${sgml
    .slice(sgml.indexOf('<OFX>'))
    .replace(/<(CURDEF|ACCTID|TRNTYPE|DTPOSTED|TRNAMT|FITID|NAME|MEMO|BALAMT|DTASOF)>([^<\n]*)/g, '<$1>$2</$1>')}`;
  const [first, second] = [read(sgml), read(xml)];
  expect(second).toEqual(first);
  expect(first).toMatchObject({ format: 'ofx', account: '12345678', currency: 'GBP', closing: 81580 });
  expect(first.lines[0]).toMatchObject({
    day: '2026-03-14',
    units: -18420,
    who: 'Marlowe & Sons',
    text: 'HF-2291',
    id: 'A1',
  });
});

it('CAMT gives a line for each booking, with the other side and all that is said', () => {
  const statement =
    read(`<?xml version="1.0"?><Document xmlns="urn:iso:std:iso:20022:tech:xsd:camt.053.001.08"><BkToCstmrStmt><Stmt>
<Acct><Id><IBAN>DE44500105175407324931</IBAN></Id><Ccy>EUR</Ccy></Acct>
<Bal><Tp><CdOrPrtry><Cd>OPBD</Cd></CdOrPrtry></Tp><Amt Ccy="EUR">1000.00</Amt><CdtDbtInd>CRDT</CdtDbtInd></Bal>
<Bal><Tp><CdOrPrtry><Cd>CLBD</Cd></CdOrPrtry></Tp><Amt Ccy="EUR">20.50</Amt><CdtDbtInd>DBIT</CdtDbtInd></Bal>
<Ntry><Amt Ccy="EUR">1020.50</Amt><CdtDbtInd>DBIT</CdtDbtInd><BookgDt><Dt>2026-03-14</Dt></BookgDt><AcctSvcrRef>X1</AcctSvcrRef>
<NtryDtls><TxDtls><Refs><EndToEndId>NOTPROVIDED</EndToEndId></Refs><RltdPties><Cdtr><Pty><Nm>Färberei Grünau</Nm></Pty></Cdtr><Dbtr><Nm>Us</Nm></Dbtr></RltdPties><RmtInf><Ustrd>RE-2026-014</Ustrd><Ustrd>und RE-2026-015</Ustrd></RmtInf></TxDtls></NtryDtls></Ntry>
</Stmt></BkToCstmrStmt></Document>`);
  expect(statement).toMatchObject({
    format: 'camt',
    account: 'DE44500105175407324931',
    opening: 100000,
    closing: -2050,
  });
  expect(statement.lines).toEqual([
    {
      ...{ day: '2026-03-14', units: -102050, currency: 'EUR', who: 'Färberei Grünau', id: 'X1', balance: null },
      text: 'RE-2026-014 und RE-2026-015',
    },
  ]);
  expect(() => read('<!DOCTYPE x [<!ENTITY a "b">]><Document xmlns="camt.053">&a;</Document>')).toThrow(StatementError);
});

it('MT940 gives amounts by their side, what is taken back the other way, and names from numbered parts', () => {
  const statement = read(
    [
      ':20:STARTUMS\r\n:25:50010517/5407324931\r\n:28C:2/1\r\n:60F:C260313EUR1000,00',
      ':61:2603140314DR184,20NTRFRE-2026-014//B1\r\n:86:177?00SEPA?20RE-2026-0?2114 vielen Dank?32Färberei Gr?33ünau',
      ':61:260315C50,NMSCNONREF\r\n:86:/NAME/Avery Stores/REMI/order 12/',
      ':61:2603160316RD20,00NTRFNONREF//B3\r\n:62F:C260316EUR885,80\r\n-',
    ].join('\r\n'),
  );
  expect(short(statement)).toEqual([
    ['2026-03-14', -18420, 'Färberei Grünau'],
    ['2026-03-15', 5000, 'Avery Stores'],
    ['2026-03-16', 2000, ''],
  ]);
  expect(statement.lines[0].text).toBe('RE-2026-014 SEPA RE-2026-014 vielen Dank');
  expect(statement).toMatchObject({ opening: 100000, closing: 88580, currency: 'EUR' });
});

it('QIF gives bookings in the order of days that fits', () =>
  expect(short(read("!Type:Bank\nD3/14'26\nT-184.20\nPMill\nMHF-2291\n^\nD3/15'26\nT1,050.00\nPStores\n^\n"))).toEqual([
    ['2026-03-14', -18420, 'Mill'],
    ['2026-03-15', 105000, 'Stores'],
  ]));

it('lines of files that overlap are there once, and what was booked twice stays twice', () => {
  const lines = (text: string) => read(`Date;Name;Amount\n${text}`).lines;
  const first = lines('14.03.2026;Mill;-1,00\n15.03.2026;Post;-3,10\n15.03.2026;Post;-3,10\n');
  const second = lines('15.03.2026;POST;-3,10\n15.03.2026;Post;-3,10\n16.03.2026;Post;-3,10\n');
  expect(alreadyThere([first, second])).toEqual([
    [false, false, false],
    [true, true, false],
  ]);
});

it('a column of what went out has its sign also where nothing came in, and the other way round', () => {
  const amounts = (text: string) => read(text).lines.map(({ units }) => units);
  expect(
    amounts(
      'Date,Description,Paid out,Paid in,Balance\n09/10/2026,Mill,120.00,,880.00\n12/10/2026,Post,48.00,,832.00\n',
    ),
  ).toEqual([-12_000, -4_800]);
  expect(amounts('Datum;Text;Soll;Haben\n09.10.2026;Mühle;;120,00\n12.10.2026;Post;;48,00\n')).toEqual([12_000, 4_800]);
});

it('amounts without signs are signed by the balance, the first as most of the others', () => {
  const text =
    'Date,Description,Amount,Balance\n09/10/2026,Mill,120.00,880.00\n12/10/2026,Post,48.00,832.00\n13/10/2026,Shop,5.00,827.00\n14/10/2026,Market,20.00,847.00\n';
  expect(read(text).lines.map(({ units }) => units)).toEqual([-12_000, -4_800, -500, 2_000]);
});

describe('what banks do besides', () => {
  const short = (text: string) => read(text).lines.map(({ units, currency, text: said }) => [units, currency, said]);

  it('a column says which way money went in words of many languages', () => {
    const text =
      '"Datum","Naam","Code","Af Bij","Bedrag (EUR)"\n"20261014","De Haven","GT","Af","48,00"\n"20261016","Noord","OV","Bij","310,00"\n';
    expect(read(text)).toMatchObject({ signed: true, lines: [{ units: -4_800 }, { units: 31_000 }] });
    expect(short('Fecha;Concepto;Importe;Tipo\n03/11/2026;Luz;61,20;Cargo\n30/11/2026;Feria;400,00;Abono\n')).toEqual([
      [-6_120, null, 'Luz'],
      [40_000, null, 'Feria'],
    ]);
  });

  it('codes of kinds of bookings are no currencies, and a quotation mark before text is none of it', () => {
    const text =
      "Date, Type, Description, Value, Balance\n03 Nov 2026,DPC,'HARBOUR FIBRE,-184.20,1204.11\n05 Nov 2026,BAC,'AVERY S-77,50.00,1254.11\n";
    expect(short(text)).toEqual([
      [-18_420, null, 'DPC HARBOUR FIBRE'],
      [5_000, null, 'BAC AVERY S-77'],
    ]);
  });

  it('amounts are in the smallest unit where their head says so, and grouped as in India', () => {
    expect(
      short('day\tamount_minor\tccy\ttext\n2026-11-03\t-18420\tGBP\tMILL\n2026-11-04\t5000\tGBP\tAVERY\n'),
    ).toEqual([
      [-18_420, 'GBP', 'MILL'],
      [5_000, 'GBP', 'AVERY'],
    ]);
    const lakh = 'Date,Narration,Amount,Dr/Cr\n03-11-2026,MILL,"1,84,200.50",Dr\n05-11-2026,AVERY,"50,000.00",Cr\n';
    expect(short(lakh)).toEqual([
      [-18_420_050, null, 'MILL'],
      [5_000_000, null, 'AVERY'],
    ]);
  });
});
