/**
 * All matches of an expression in a text, from the left, without those of nothing. `String.prototype.matchAll` makes another
 * expression of it at each call, which is compiled anew whenever the engine has cleared its cache: milliseconds on each page.
 * @param form with the flag `g`
 */
export function allMatches(form: RegExp, text: string): RegExpExecArray[] {
  const found: RegExpExecArray[] = [];
  form.lastIndex = 0;
  for (let match = form.exec(text); match; match = form.exec(text)) {
    if (match[0] === '') form.lastIndex++;
    else found.push(match);
  }
  return found;
}
