import { writeMoney } from '../../money';
import { isCreditorReference, Payment, paymentProblem, transferText } from './payment';

/** By whom and from where payments are made. */
export interface Payer {
  name: string;
  /** Without spaces. */
  iban: string;
}

const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[sign]!);
const MOST_NAME = 70;
const MOST_REMITTANCE = 140;

/**
 * Transfers in euros as a bank takes them from a file (ISO 20022, pain.001.001.09, as the EPC's SEPA credit transfer uses it).
 * @param on the day on which they are to be made (ISO 8601) @param at when the file was made (ISO 8601), and `id` what tells it from others
 * @throws Error when one of them is no such transfer: see paymentProblem
 */
export function writePain001(
  payments: readonly Payment[],
  { payer, on, at, id }: { payer: Payer; on: string; at: string; id: string },
): string {
  const wrong = payments.find((each) => paymentProblem(each));
  if (wrong || payments.length === 0) throw new Error('Not all of these are transfers in euros.');
  const sum = writeMoney({ units: payments.reduce((all, { units }) => all + units, 0), currency: 'EUR' });
  const counts = `<NbOfTxs>${payments.length}</NbOfTxs><CtrlSum>${sum}</CtrlSum>`;
  const named = (name: string) => `<Nm>${escaped(transferText(name, MOST_NAME))}</Nm>`;
  const account = (iban: string) => `<Id><IBAN>${escaped(iban)}</IBAN></Id>`;
  const about = (reference: string) =>
    isCreditorReference(reference)
      ? `<Strd><CdtrRefInf><Tp><CdOrPrtry><Cd>SCOR</Cd></CdOrPrtry></Tp><Ref>${reference.replace(/\s/g, '').toUpperCase()}</Ref></CdtrRefInf></Strd>`
      : `<Ustrd>${escaped(transferText(reference, MOST_REMITTANCE) || 'Payment')}</Ustrd>`;
  const transfers = payments.map(
    (each) => `      <CdtTrfTxInf>
        <PmtId><EndToEndId>${escaped(transferText(each.id, 35))}</EndToEndId></PmtId>
        <Amt><InstdAmt Ccy="EUR">${writeMoney(each)}</InstdAmt></Amt>
        <Cdtr>${named(each.name)}</Cdtr>
        <CdtrAcct>${account(each.iban)}</CdtrAcct>
        <RmtInf>${about(each.reference)}</RmtInf>
      </CdtTrfTxInf>`,
  );
  return `<?xml version="1.0" encoding="UTF-8"?>
<Document xmlns="urn:iso:std:iso:20022:tech:xsd:pain.001.001.09">
  <CstmrCdtTrfInitn>
    <GrpHdr>
      <MsgId>${escaped(transferText(id, 35))}</MsgId>
      <CreDtTm>${at}</CreDtTm>
      ${counts}
      <InitgPty>${named(payer.name)}</InitgPty>
    </GrpHdr>
    <PmtInf>
      <PmtInfId>${escaped(transferText(id, 35))}</PmtInfId>
      <PmtMtd>TRF</PmtMtd>
      ${counts}
      <PmtTpInf><SvcLvl><Cd>SEPA</Cd></SvcLvl></PmtTpInf>
      <ReqdExctnDt><Dt>${on}</Dt></ReqdExctnDt>
      <Dbtr>${named(payer.name)}</Dbtr>
      <DbtrAcct>${account(payer.iban)}</DbtrAcct>
      <DbtrAgt><FinInstnId><Othr><Id>NOTPROVIDED</Id></Othr></FinInstnId></DbtrAgt>
      <ChrgBr>SLEV</ChrgBr>
${transfers.join('\n')}
    </PmtInf>
  </CstmrCdtTrfInitn>
</Document>
`;
}
