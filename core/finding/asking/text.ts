import { fold } from '../../reading/facts/rows';

/** A form that any of these words fit, whole (a regular expression, parted by bars). */
export const any = (words: string) => new RegExp(`(?<![\\p{L}\\p{N}])(?:${words})(?![\\p{L}\\p{N}])`, 'u');

/** Takes what a form finds out of a text. */
export class Text {
  constructor(public rest: string) {}
  has(form: RegExp): boolean {
    return form.test(this.rest);
  }
  take(form: RegExp): boolean {
    const before = this.rest;
    this.rest = this.rest.replace(form, ' ').replace(/ {2,}/g, ' ');
    return this.rest !== before;
  }
}

/** A question in small letters without accents, words parted by single spaces; amounts and days keep their signs. */
export function plainQuestion(question: string): string {
  return (
    fold(question)
      // “Stromkosten” asks what “Strom” costs.
      .replace(/(?<=\p{L}{3})(?=(?:kosten|ausgaben)(?!\p{L}))/gu, ' ')
      .replace(/(?<=\p{L})['’´`](?=s(?!\p{L}))/gu, '')
      .replace(/(?<=\p{L})['’´`](?=\p{L})/gu, ' ')
      .replace(/(?<!\d)[.,](?=\d)|[.,](?!\d)|[?!;:()"“”„«»…]/gu, ' ')
      .replace(/(?<=\p{L})[-–](?=\p{L})/gu, ' ')
      .replace(/[^\p{L}\p{N}.,/£€$&+-]+/gu, ' ')
      .replace(/ {2,}/g, ' ')
      .trim()
  );
}
