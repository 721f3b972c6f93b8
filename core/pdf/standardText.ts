import { PDFFont } from '@cantoo/pdf-lib';

/** A text in lines that are no wider than so many points; a word that is wider by itself is parted. */
export function broken(text: string, font: PDFFont, size: number, width: number): string[] {
  const fits = (line: string) => font.widthOfTextAtSize(line, size) <= width;
  const rows: string[] = [];
  for (const word of printable(text, font).split(/\s+/)) {
    const longer = rows.length > 0 ? `${rows[rows.length - 1]} ${word}` : word;
    if (rows.length > 0 && fits(longer)) rows[rows.length - 1] = longer;
    else {
      let rest = word;
      while (rest.length > 1 && !fits(rest)) {
        // The longest beginning that fits, by halves.
        let [least, most] = [1, rest.length];
        while (most - least > 1) {
          const middle = (least + most) >> 1;
          if (fits(rest.slice(0, middle))) least = middle;
          else most = middle;
        }
        rows.push(rest.slice(0, least));
        rest = rest.slice(least);
      }
      rows.push(rest);
    }
  }
  return rows;
}

/** What the standard fonts have no letter for is printed without its accents, or as a question mark. */
export function printable(text: string, font: PDFFont): string {
  const known = new Set(font.getCharacterSet());
  return [...text.normalize('NFC')]
    .map((letter) => {
      if (known.has(letter.codePointAt(0)!)) return letter;
      const base = letter.normalize('NFD')[0];
      return known.has(base.codePointAt(0)!) ? base : '?';
    })
    .join('');
}
