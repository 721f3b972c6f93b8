import { Word } from '../words';
import { fold, Row } from './rows';

/** What is counted or measured (folded). */
export const UNIT =
  /^(?:x|×|kg|g|gr|mg|lb|lbs|oz|t|l|ml|cl|ltr|litres?|liters?|m|m2|m²|m3|m³|qm|cbm|lfm|lm|cm|mm|km|ft|yd|yds|miles?|mi|h|hrs?|hours?|std|stdn?|stunden?|heures?|uren|ore|horas?|min|mins|minutes?|minuten|days?|tage?|jours?|nights?|nachte?|nuits?|weeks?|wochen?|semaines?|months?|monate?|mois|years?|jahre?|ans?|kwh|mwh|units?|ea|each|pcs?|pce|pieces?|piece|pkt|pks?|packs?|boxe?s?|pairs?|sets?|rolls?|cones?|bags?|sheets?|st|stk|stck|stuck|paar|dose|pck|pkg|packung(?:en)?|karton|rolle|ve|psch|pausch|pauschale?|ps|pal|satz|u|un|uds?|unites?|piece?s|pz|stuks?|no|off|ct|ls|sum|item|job|visit|person(?:en|s)?|pers|gast|adults?|block|ries|p|pence|cents?)\.?$/;
/** What stands between a quantity and its price. */
export const BETWEEN = /^(?:x|×|\*|@|a|à|at|je|zu|for|zum?|von|of|per|chaque|cad|de)$/i;
/** “per hour”, “/kg”, “each”, “je Stunde” behind a price. */
export const PER = /^(?:(?:[€£$]|eur|chf|ct|p)?\/ ?\p{L}+[²³]?|ppl|per|je|pro|par|each|ea|a|an|die|le|la|l')\.?$/iu;
/** Whether words name something: a word of letters that is not only what is counted in. */
export function isNaming(words: readonly Word[]): boolean {
  const isWord = ({ text }: Word) => /\p{L}{2}/u.test(text);
  return words.some((word, at) => {
    if (!isWord(word)) return false;
    // “Night units 88 kWh”: what is counted in stands behind a figure.
    const [before, after] = [words[at - 1], words[at + 1]] as (Word | undefined)[];
    return (
      !isMeasure(word.text) || (before === undefined && after !== undefined && isWord(after) && !/\d/.test(after.text))
    );
  });
}

/** Whether a word says how much there is of something, or at which price. */
export const isMeasure = (text: string) =>
  UNIT.test(fold(text)) || BETWEEN.test(text) || PER.test(text) || /^[\d.,]+\p{L}{1,4}²?$/u.test(text) || isPrice(text);
const isPrice = (text: string) => /^[@x×]?\W{0,2}\d[\d.,]*(?:\/\p{L}{1,4}²?)?$/u.test(text);

/** “0.842 kg @ £0.95/kg”: how much of what another row names, and at which price. */
const COUNTED_AT =
  /^\(?(\d[\d.,]*) ?(?:(\p{L}{1,8}[²³]?)\.? ?)?(?:x|×|\*|@|a|at|je|zu|for)(?: |(?=[\d£€$]))(?:[£€$]|[a-z]{3} )?(?:(\d{1,2})\/[£€$]?)?(\d[\d.,]*)(p|ct)?(?: ?[£€$]| eur| chf| gbp)?(?: ?\/ ?\p{L}{1,6}²?| (?:per|je|pro) \p{L}{1,8}| each| ea\.?)?\)?$/u;

/** What a row says that only counts what another names, as quantity and price; undefined where it says anything else. */
export function countedAt({ folded }: Pick<Row, 'folded'>): { quantity: number; unitPrice: number }[] | undefined {
  const said = COUNTED_AT.exec(folded.slice(0, LONGEST_PHRASE + 1));
  if (!said || (said[2] && !UNIT.test(said[2]))) return undefined;
  // “4 @ 2/5.00”: two for five.
  const per = Number(said[3] ?? 1);
  const prices = valuesOf(said[4]).map((price) => Number(((said[5] ? hundredth(price) : price) / per).toFixed(6)));
  return valuesOf(said[1]).flatMap((quantity) => prices.map((unitPrice) => ({ quantity, unitPrice })));
}

const LONGEST_PHRASE = 60;

/** “à 8,90”, “@ £1.20 each” in a row of its own (folded). */
const ONLY_PRICE = /^(?:a|at|@|je|zu|per|x|×) ?[£€$]? ?(\d[\d.,]*)(?: ?[£€$]| eur| each| ea\.?)?$/u;

/** The price that a row says of what stands above it; undefined where it says anything else. */
export function onlyPrice({ folded }: Pick<Row, 'folded'>): number | undefined {
  const said = ONLY_PRICE.exec(folded.slice(0, LONGEST_PHRASE + 1));
  return said ? valuesOf(said[1])[0] : undefined;
}

/** Less than so many hundredths may a product be off by rounding. */
const ROUNDED = 1.01;
/** Whether a quantity and a price make an amount, in hundredths. */
export const makes = (quantity: number, unitPrice: number, cents: number, discount = 0) =>
  Math.abs(quantity * unitPrice * (100 - discount) - Math.abs(cents)) < ROUNDED;

/** A hundredth, without what binary fractions add. */
export const hundredth = (value: number) => Number((value / 100).toPrecision(12));

/** What a number may be: one separator with three figures behind it parts thousands or decimals. */
export function valuesOf(written: string): number[] {
  const text = written.replace(/'/g, '').replace(/[.,]+$/, '');
  const last = Math.max(text.lastIndexOf('.'), text.lastIndexOf(','));
  if (last < 0) return [Number(text)];
  const whole = Number(text.replace(/[.,]/g, ''));
  const decimals = text.length - last - 1;
  const others = text.slice(0, last).replace(/[.,]/g, '');
  const decimal = Number(`${others}.${text.slice(last + 1)}`);
  const isMixed = /[.,]/.test(text.slice(0, last));
  if (decimals !== 3) return [decimal];
  return isMixed && text[last] === /[.,]/.exec(text)![0] ? [whole] : isMixed ? [decimal] : [decimal, whole];
}

/** “£0.95/kg”, “26.40p”, “84m²”, “(12”, “12x” (without the sign of its money). */
export const NUMBER =
  /^[(@x×*]?[-–−]?(?:[£€$¥]|chf|eur|gbp)?(\d[\d.,']*|\.\d+)(p|ct|c|%)?(?:[£€$])?(?:\/?\p{L}{1,5}[²³.]?)?[)x×,;:*]*$/iu;
