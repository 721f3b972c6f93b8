/** Everything that can go wrong in a way that a person should hear about: what happened, what was kept, what to do. */
interface ProblemText {
  status: number;
  happened: string;
  kept?: string;
  todo?: string;
}

const ORIGINAL_KEPT = 'The file is kept as it came.';

/** The one table of problems. Words in braces are filled in with details. */
export const PROBLEMS = {
  'not-valid': { status: 400, happened: 'The request did not fit: {detail}.', kept: 'Nothing was changed.' },
  'not-found': {
    status: 404,
    happened: '{what} is not there (any more).',
    todo: 'Go back to the list; it shows what is there now.',
  },
  'not-allowed': {
    status: 403,
    happened: 'This request did not come from Crow Shelf’s own page.',
    kept: 'Nothing was changed.',
  },
  'not-yours': {
    status: 403,
    happened: 'You may not do that here.',
    kept: 'Nothing was changed.',
    todo: 'Ask the owner to do it, or to let you.',
  },
  'not-let-in': {
    status: 401,
    happened: 'This browser has not been let in.',
    kept: 'Nothing was changed.',
    todo: 'Open the address that “./crow start” printed, in the browser that you want to work with. It lets one browser in, once; “./crow key” prints another.',
  },
  'too-many-requests': {
    status: 429,
    happened: 'Too many requests in a short time.',
    todo: 'Wait a moment and try again.',
  },
  'not-ready': {
    status: 503,
    happened: 'The database is just starting again.',
    kept: 'Everything taken in is safe.',
    todo: 'Crow Shelf tries again by itself in a moment.',
  },
  unexpected: {
    status: 500,
    happened: 'Something went wrong inside Crow Shelf.',
    kept: 'What was saved before is safe.',
    todo: 'Try again; if it happens again, the log tells more.',
  },
  'upload-interrupted': {
    status: 400,
    happened: 'The transfer of “{name}” stopped before its end.',
    kept: 'Nothing of it was taken in.',
    todo: 'Choose the file again.',
  },
  'file-empty': { status: 422, happened: '“{name}” is empty: it has 0 bytes.', todo: 'Scan or save it again.' },
  'file-too-large': {
    status: 413,
    happened: '“{name}” is larger than 1 GiB, the most that can be taken in as one file.',
    kept: 'Nothing of it was taken in.',
    todo: 'Divide it into smaller files.',
  },
  'file-unknown': {
    status: 422,
    happened: '“{name}” is not a file that holds pages{looksLike}.',
    kept: ORIGINAL_KEPT,
    todo: 'Crow Shelf takes in PDF, JPEG, PNG, TIFF, HEIC and WebP, and ZIP archives of them.',
  },
  'file-broken': {
    status: 422,
    happened: '“{name}” is damaged and can’t be opened as {format}.',
    kept: ORIGINAL_KEPT,
    todo: 'Save or scan it again, and take in the new file.',
  },
  'file-encrypted': {
    status: 422,
    happened: '“{name}” is locked with a password.',
    kept: ORIGINAL_KEPT,
    todo: 'Type its password here; or take in a copy without one.',
  },
  'password-wrong': {
    status: 403,
    happened: 'That is not the password of “{name}”.',
    kept: 'The file is kept as it came.',
    todo: 'Type it again; capitals count.',
  },
  'archive-broken': {
    status: 422,
    happened: '“{name}” is damaged and can’t be opened as a ZIP archive.',
    kept: 'Nothing of it was taken in.',
    todo: 'Save it again, and take in the new one.',
  },
  'archive-too-large': {
    status: 422,
    happened: '“{name}” holds more than can be taken in at once.',
    kept: 'Nothing of it was taken in.',
    todo: 'Divide it into smaller archives.',
  },
  'archive-empty': {
    status: 422,
    happened: 'There is no paper in “{name}”.',
    todo: 'See whether it is the right one.',
  },
  'archive-known': {
    status: 409,
    happened: 'Everything in “{name}” is on the shelf already.',
    kept: 'The shelf is as it was.',
  },
  'archive-strange': {
    status: 422,
    happened: '“{name}” is not an archive of the shelf: it does not say what is in it.',
    kept: 'Nothing was changed.',
    todo: 'Drop it in Capture: the papers in it are taken in like any others.',
  },
  'too-many-pages': {
    status: 422,
    happened: '“{name}” has {pages} pages; one file may have {most} at most.',
    kept: ORIGINAL_KEPT,
    todo: 'Divide it into smaller files.',
  },
  'picture-too-large': {
    status: 422,
    happened: '“{name}” is {width} × {height} pixels, more than a page can be.',
    kept: ORIGINAL_KEPT,
    todo: 'Save it smaller: {most} million pixels are enough for any paper.',
  },
  'page-not-drawn': {
    status: 422,
    happened: 'Page {page} of “{name}” can’t be drawn.',
    kept: ORIGINAL_KEPT,
    todo: 'Drop the page, or scan it again.',
  },
  'picture-waiting': {
    status: 503,
    happened: 'The picture of this page is still being made.',
    todo: 'It appears by itself in a moment.',
  },
  'page-not-read': {
    status: 422,
    happened: 'The text of this page could not be read: {detail}.',
    kept: 'The page itself is complete.',
    todo: 'Read it again, or file it without searchable text.',
  },
  'took-too-long': {
    status: 422,
    happened: '{what} took longer than {seconds} seconds and was stopped.',
    kept: ORIGINAL_KEPT,
    todo: 'Try again, or save the file in a simpler form.',
  },
  'not-bound': {
    status: 422,
    happened: 'The PDF of this document could not be made.',
    kept: 'Its pages are complete.',
    todo: 'Take it back to Check, look whether a page has a problem, and file it again.',
  },
  'stack-changed': {
    status: 409,
    happened: 'The stack was changed in another window.',
    kept: 'The other window’s change.',
    todo: 'Look at it as it is now and do your change again.',
  },
  'stack-sorted': { status: 409, happened: 'This stack has been sorted already.', todo: 'Its documents are in Check.' },
  'stack-empty': {
    status: 409,
    happened: 'No page is left in this stack.',
    todo: 'Bring a page back, or delete the stack.',
  },
  'stack-arriving': {
    status: 409,
    happened: 'Some files of this stack are still being taken in.',
    todo: 'Wait until all its pages are there.',
  },
  'only-one-paper': {
    status: 409,
    happened: 'Only one paper was found on this page.',
    kept: 'The page is as it was.',
    todo: 'Lay the papers further apart and scan them again.',
  },
  'documents-on-their-way': {
    status: 409,
    happened: 'All documents of this stack have been filed or binned already.',
    kept: 'Everything is as it was.',
    todo: 'Take them from the shelf back to Check first.',
  },
  'document-elsewhere': {
    status: 409,
    happened: '“{name}” is not there for this any more; it is {state}.',
    todo: 'Look at it as it is now.',
  },
  'name-missing': {
    status: 400,
    happened: 'The document has no name yet.',
    todo: 'Type a name; it is what you will look for.',
  },
  'folder-missing': { status: 400, happened: 'No folder was chosen.', todo: 'Choose a folder or type a new one.' },
  'folder-exists': {
    status: 409,
    happened: 'There is a folder “{name}” here already.',
    todo: 'Use that one, or another name.',
  },
  'folder-not-empty': {
    status: 409,
    happened: 'The folder “{name}” is not empty, so it was not deleted.',
    kept: 'Everything in it is where it was.',
    todo: 'Move or delete what is in it first.',
  },
  'folder-into-itself': { status: 400, happened: 'A folder can’t go into itself.', kept: 'Everything is as it was.' },
  'no-lines': {
    status: 404,
    happened: 'No lines with amounts were read from this document.',
    todo: 'See whether it is a bill; lines are read from invoices and receipts.',
  },
  'text-changed': {
    status: 409,
    happened: '“{text}” is not there any more; the page was read again or corrected in another window.',
    kept: 'The text as it is now.',
    todo: 'Look at the word as it is now.',
  },
  'text-own': {
    status: 409,
    happened: 'This page came with its own text, which stays as it is.',
    kept: 'Nothing was changed.',
  },
  'amount-unclear': { status: 400, happened: '“{text}” is not a number.', todo: 'Type it like 1,234.56 or 1.234,56.' },
  'date-unclear': { status: 400, happened: '“{text}” is not a date.', todo: 'Type it like 14.3.2026 or 2026-03-14.' },
  'language-unknown': {
    status: 400,
    happened: '“{name}” is not a language that can be read.',
    todo: 'Choose one of the list.',
  },
  'language-not-added': {
    status: 502,
    happened: '{name} could not be added: the package manager did not install it.',
    kept: 'The other languages are there as before.',
    todo: 'See that this machine is on the network and may install packages, or run “{command}” yourself; then open this list again.',
  },
  'scanner-gone': {
    status: 502,
    happened: 'The scanner does not answer.',
    todo: 'See that it is switched on and on the same network, and try again.',
  },
  'scanner-strange': {
    status: 502,
    happened: 'What answers at this address is not a scanner that Crow Shelf understands.',
    todo: 'Crow Shelf speaks eSCL, as most network scanners do; look for it in the scanner’s own settings.',
  },
  'scanner-busy': {
    status: 409,
    happened: 'The scanner is busy with something else.',
    todo: 'Wait until it is done, and scan again.',
  },
  'scanner-refused': {
    status: 409,
    happened: 'The scanner does not scan like that.',
    todo: 'Choose another resolution, colour or area.',
  },
  'scanner-open': {
    status: 409,
    happened: 'The scanner’s cover is open.',
    kept: 'What came through before is in the stack.',
    todo: 'Close it, and scan the rest.',
  },
  'feeder-empty': {
    status: 409,
    happened: 'There is no paper in the feeder.',
    todo: 'Put the papers in until they are held, and scan again.',
  },
  'feeder-jam': {
    status: 409,
    happened: 'A sheet is stuck in the feeder.',
    kept: 'What came through before is in the stack.',
    todo: 'Take the sheet out, lay it back on the pile, and scan the rest.',
  },
  'scan-stopped': { status: 409, happened: 'The scan was stopped.', kept: 'What came through before is in the stack.' },
  'watched-gone': {
    status: 409,
    happened: 'The folder “{path}” can’t be reached.',
    kept: 'What was taken in from it is safe.',
    todo: 'Crow Shelf goes on by itself once it is there again; see that the drive or the network is connected.',
  },
  'watched-strange': {
    status: 409,
    happened: 'Neither “done” nor “refused” is in “{path}”; perhaps the drive that belongs there is not connected.',
    kept: 'Nothing in it was touched.',
    todo: 'Connect the drive; or, if you took the two away yourself, make an empty folder “done” in it.',
  },
  'watched-stuck': {
    status: 409,
    happened: 'Files can’t be moved inside “{path}”: {detail}.',
    kept: 'They are where they were, and are not taken in twice.',
    todo: 'Allow writing in the folder.',
  },
  'watched-closed': {
    status: 409,
    happened: 'The file “{name}” in “{path}” may not be read.',
    kept: 'It was left where it is.',
    todo: 'Allow reading it.',
  },
  'watched-unfit': {
    status: 400,
    happened: '“{path}” can’t be watched: {detail}.',
    kept: 'Nothing was changed.',
    todo: 'Choose another folder.',
  },
  'watched-full': {
    status: 409,
    happened: '{papers} files already lie in “{path}” and would be taken in: {names}.',
    kept: 'Nothing in it was touched.',
    todo: 'If they are all meant, watch it all the same; each is moved to “done” inside it.',
  },
  'file-known': {
    status: 409,
    happened: '“{name}” holds the very same as “{other}”, which was taken in on {when}.',
    kept: 'The one taken in before is there; this one was left as it came.',
    todo: 'There is nothing to do, unless it was meant to come in twice: then take it in by hand.',
  },
  'shelf-file-changed': {
    status: 409,
    happened: 'The file “{path}” in the shelf folder was changed or replaced by somebody.',
    kept: 'It was left as it is; Crow Shelf has its own copy, too.',
    todo: 'Say which of the two is to stand there.',
  },
  'shelf-file-moved': {
    status: 409,
    happened: 'Somebody moved the file “{path}” in the shelf folder to “{now}”.',
    kept: 'It was left where it is.',
    todo: 'Say whether the document goes along or the file comes back.',
  },
  'shelf-file-missing': {
    status: 409,
    happened: 'The file “{path}” is not in the shelf folder any more.',
    kept: 'Crow Shelf has its own copy.',
    todo: 'Say whether it is to be put back.',
  },
  'shelf-file-unfit': {
    status: 422,
    happened: '“{path}” can’t be taken over: {detail}.',
    kept: 'Everything is as it was.',
    todo: 'Put the document’s own file back; the other one stays beside it.',
  },
  'disk-full': {
    status: 507,
    happened: 'The disk that {what} lies on is full: {left} MB are left.',
    kept: 'What was taken in before is safe, and nothing more is taken in.',
    todo: 'Make room; what waits goes on by itself then.',
  },
  'shelf-gone': {
    status: 503,
    happened: 'The shelf folder “{path}” is not there; perhaps the drive that it lies on is not connected.',
    kept: 'All documents are safe in the database and can be opened and found; nothing was written in its place.',
    todo: 'Connect the drive, and Crow Shelf goes on by itself; if the folder is lost for good, have it written anew.',
  },
  'shelf-not-writable': {
    status: 500,
    happened: 'The shelf folder can’t be written to: {detail}.',
    kept: 'The document is safe in the database and can be opened and found.',
    todo: 'Make room or allow writing there; Crow Shelf tries again by itself.',
  },
} as const satisfies Record<string, ProblemText>;

export type ProblemCode = keyof typeof PROBLEMS;

/** A problem as it is stored and sent: its code and its sentences, filled in. */
export interface ProblemReport {
  code: ProblemCode;
  happened: string;
  kept?: string;
  todo?: string;
}

/** An error that a person is told about, from the table of problems. */
export class Problem extends Error {
  readonly status: number;
  readonly report: ProblemReport;

  constructor(
    readonly code: ProblemCode,
    details: Record<string, string | number> = {},
  ) {
    const text: ProblemText = PROBLEMS[code];
    const fill = (sentence: string) => sentence.replace(/\{(\w+)\}/g, (_, name: string) => String(details[name] ?? ''));
    super(fill(text.happened));
    this.name = 'Problem';
    this.status = text.status;
    this.report = {
      code,
      happened: this.message,
      ...(text.kept && { kept: fill(text.kept) }),
      ...(text.todo && { todo: fill(text.todo) }),
    };
  }
}

/** A report as one paragraph. */
export function inWords({ happened, kept, todo }: ProblemReport): string {
  return [happened, kept, todo].filter(Boolean).join(' ');
}
