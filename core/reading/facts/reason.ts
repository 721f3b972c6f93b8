import { Sign } from './signs';

/** Why something was taken for a fact, as a code with what it names; the sentence is made where it is shown. */
export type Reason =
  | { code: 'beside' | 'under'; label: string; adds?: boolean }
  | { code: 'repaired'; printed: string }
  | { code: 'rates'; count: number; adds: boolean }
  | { code: 'currency-sign'; sign: string }
  | { code: 'says' | 'counted' | 'comes-from'; text: string }
  | { code: 'known-sign'; kind: Sign['kind'] }
  | {
      code:
        | 'behind-its-word'
        | 'at-the-salutation'
        | 'first-date'
        | 'marked-as-number'
        | 'has-total'
        | 'rows-with-amounts'
        | 'rows-that-add-up'
        | 'known-name'
        | 'named-as-sender'
        | 'heads-paper'
        | 'heads-and-again'
        | 'small-print'
        | 'named-in-text'
        | 'invoice-data'
        | 'mail-data'
        | 'divider-sheet'
        | 'check-digits'
        | 'payment-code'
        | 'bar-code'
        | 'said-before'
        | 'nothing-says-its-kind'
        | 'its-wording'
        | 'makes-the-balance'
        | 'with-extras';
    }
  /** As it was written down before there were codes. */
  | { code: 'as-told'; text: string };

const SIGN_NAMES: Record<Sign['kind'], string> = {
  iban: 'bank account',
  tax: 'tax number',
  web: 'web address',
  phone: 'phone number',
};

/** A reason in a few words. */
export function sayReason(reason: Reason): string {
  switch (reason.code) {
    case 'beside':
    case 'under': {
      const because = reason.adds === undefined ? '' : reason.adds ? ', and it adds up' : ', but it does not add up';
      return `${reason.code} “${reason.label}”${because}`;
    }
    case 'repaired':
      return `read as ${reason.printed}, but only so everything adds up`;
    case 'rates':
      return `${reason.count} rates${reason.adds ? ', and they add up' : ''}`;
    case 'currency-sign':
      return `“${reason.sign}” beside an amount`;
    case 'says':
      return `says “${reason.text}”`;
    case 'counted':
      return `counted from its day: “${reason.text}”`;
    case 'comes-from':
      return `where it comes from, by “${reason.text}”`;
    case 'known-sign':
      return `its ${SIGN_NAMES[reason.kind]} is known`;
    case 'behind-its-word':
      return 'behind the word for it';
    case 'at-the-salutation':
      return 'the line by itself at the salutation';
    case 'first-date':
      return 'the first date on it';
    case 'marked-as-number':
      return 'marked as a number';
    case 'has-total':
      return 'it has a total';
    case 'rows-with-amounts':
      return 'rows with an amount';
    case 'rows-that-add-up':
      return 'they add up';
    case 'known-name':
      return 'confirmed before';
    case 'named-as-sender':
      return 'named as the sender';
    case 'heads-paper':
      return 'heads the paper';
    case 'heads-and-again':
      return 'heads the paper and is named again';
    case 'small-print':
      return 'the firm in the small print';
    case 'said-before':
      return 'as you said of such a paper from this sender';
    case 'named-in-text':
      return 'the firm that its text names';
    case 'nothing-says-its-kind':
      return 'nothing on it says its kind';
    case 'its-wording':
      return 'it is worded like such papers';
    case 'payment-code':
      return 'the payment code says so';
    case 'bar-code':
      return 'a bar code says so';
    case 'check-digits':
      return 'its check digits fit';
    case 'makes-the-balance':
      return 'what was paid already is taken off';
    case 'with-extras':
      return 'with the carriage or discount that stands below it';
    case 'divider-sheet':
      return 'as its divider sheet says';
    case 'mail-data':
      return 'the mail says it in its head';
    case 'invoice-data':
      return 'from the invoice data inside the PDF';
    case 'as-told':
      return reason.text;
  }
}
