import { detectFormat, looksLike } from './formats';

const bytes = (text: string) => Buffer.from(text, 'latin1');

it.each([
  ['pdf', '%PDF-1.4\n'],
  ['pdf', '\n\nrubbish before the header %PDF-1.7'],
  ['jpeg', '\xff\xd8\xff\xe0'],
  ['png', '\x89PNG\r\n\x1a\n'],
  ['tiff', 'II*\0'],
  ['tiff', 'MM\0*'],
  ['webp', 'RIFF\0\0\0\0WEBPVP8 '],
  ['heic', '\0\0\0\x18ftypheic'],
])('knows %s by its bytes', (format, head) => {
  expect(detectFormat(bytes(head))).toBe(format);
});

it.each([
  ['PK\x03\x04....', /ZIP/],
  ['GIF89a', /GIF/],
  ['<!DOCTYPE html>', /web page/],
  ['Dear Sir,\nhello', /plain text/],
  ['\x7fELF', /program/],
  ['\0\x01\x02', /^$/],
])('does not take “%s” for a file with pages, and says what it looks like', (head, said) => {
  expect(detectFormat(bytes(head))).toBeUndefined();
  expect(looksLike(bytes(head))).toMatch(said);
});
