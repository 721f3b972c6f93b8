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
  'not-valid': { status: 400, happened: 'The request was not valid: {detail}.', kept: 'Nothing was changed.' },
  'not-found': {
    status: 404,
    happened: '{what} can’t be found.',
    todo: 'Go back to the list to see what is there now.',
  },
  'not-allowed': {
    status: 403,
    happened: 'This request did not come from Crow Shelf’s own page.',
    kept: 'Nothing was changed.',
  },
  'not-yours': {
    status: 403,
    happened: 'You are not allowed to do this.',
    kept: 'Nothing was changed.',
    todo: 'Ask the owner to do it, or to give you permission.',
  },
  'not-let-in': {
    status: 401,
    happened: 'This browser has not been let in yet.',
    kept: 'Nothing was changed.',
    todo: 'Open the address printed by “./crow start” in the browser you want to use. Each address lets one browser in, once; “./crow key” prints another.',
  },
  'wrong-name-or-phrase': {
    status: 401,
    happened: 'Name or pass phrase is not right.',
    todo: 'Try again; after five wrong ones nobody comes in under that name for a quarter of an hour.',
  },
  'too-many-tries': {
    status: 429,
    happened: 'The pass phrase was wrong too often.',
    kept: 'Nothing was changed.',
    todo: 'Wait a quarter of an hour, or ask the owner for another pass phrase.',
  },
  'door-shut': {
    status: 409,
    happened: 'Other devices can’t reach Crow Shelf yet.',
    kept: 'Nothing was changed.',
    todo: 'Open the door for other devices first.',
  },
  'door-no-address': {
    status: 409,
    happened: 'This machine has no address that another device could reach.',
    kept: 'The door stays shut.',
    todo: 'Connect the machine to your network, then open the door again.',
  },
  'door-stuck': {
    status: 409,
    happened: 'The door could not be opened: {detail}.',
    kept: 'It stays shut; on this machine everything works as before.',
    todo: 'Put this right, then open the door again.',
  },
  'name-taken': {
    status: 409,
    happened: 'There is somebody called {name} already.',
    kept: 'Nothing was changed.',
    todo: 'Choose another name.',
  },
  'too-many-requests': {
    status: 429,
    happened: 'Too many requests in a short time.',
    todo: 'Wait a moment and try again.',
  },
  'not-ready': {
    status: 503,
    happened: 'The database is restarting.',
    kept: 'Everything taken in is safe.',
    todo: 'Crow Shelf will try again by itself in a moment.',
  },
  unexpected: {
    status: 500,
    happened: 'Something went wrong inside Crow Shelf.',
    kept: 'Everything saved before is safe.',
    todo: 'Try again. If it keeps happening, the log has the details.',
  },
  'upload-interrupted': {
    status: 400,
    happened: 'The transfer of “{name}” was interrupted.',
    kept: 'None of it was taken in.',
    todo: 'Choose the file again.',
  },
  'file-empty': { status: 422, happened: '“{name}” is empty: it has 0 bytes.', todo: 'Scan or save it again.' },
  'file-too-large': {
    status: 413,
    happened: '“{name}” is larger than 1 GiB, the limit for a single file.',
    kept: 'None of it was taken in.',
    todo: 'Split it into smaller files.',
  },
  'file-unknown': {
    status: 422,
    happened: '“{name}” does not contain any pages{looksLike}.',
    kept: ORIGINAL_KEPT,
    todo: 'Crow Shelf takes in PDF, JPEG, PNG, TIFF, HEIC, WebP, electronic invoices (XML), mails (.eml, mailbox exports), and ZIP archives of them.',
  },
  'file-broken': {
    status: 422,
    happened: '“{name}” is damaged and can’t be opened as {format}.',
    kept: ORIGINAL_KEPT,
    todo: 'Save or scan it again and take in the new file.',
  },
  'file-encrypted': {
    status: 422,
    happened: '“{name}” is protected by a password.',
    kept: ORIGINAL_KEPT,
    todo: 'Type the password here, or take in a copy without one.',
  },
  'password-wrong': {
    status: 403,
    happened: 'That is not the password of “{name}”.',
    kept: 'The file is kept as it came.',
    todo: 'Try again; capital letters matter.',
  },
  'archive-broken': {
    status: 422,
    happened: '“{name}” is damaged and can’t be opened as a ZIP archive.',
    kept: 'None of it was taken in.',
    todo: 'Save it again and take in the new copy.',
  },
  'archive-too-large': {
    status: 422,
    happened: '“{name}” contains more than can be taken in at once.',
    kept: 'None of it was taken in.',
    todo: 'Split it into smaller archives.',
  },
  'archive-empty': {
    status: 422,
    happened: '“{name}” contains no papers.',
    todo: 'Check that it is the right archive.',
  },
  'mail-empty': {
    status: 422,
    happened: '“{name}” is a mail that says nothing, with nothing attached.',
    kept: ORIGINAL_KEPT,
    todo: 'Open it in your mail program, and save what it shows as PDF.',
  },
  'mail-too-large': {
    status: 413,
    happened: 'A mail in “{name}” is larger than 64 MB.',
    kept: ORIGINAL_KEPT,
    todo: 'Save what is attached to it in your mail program, and take that in.',
  },
  'mails-not-read': {
    status: 422,
    happened:
      'Some of the mails in “{name}” can’t be read, or are larger than 64 MB: number {numbers}, counted from the first.',
    kept: 'All others were taken in; the mailbox is kept as it came.',
    todo: 'Save what is attached to these in your mail program, and take that in.',
  },
  'archive-known': {
    status: 409,
    happened: 'Everything in “{name}” is already on the shelf.',
    kept: 'The shelf was not changed.',
  },
  'archive-strange': {
    status: 422,
    happened: '“{name}” is not an archive of the shelf: it has no list of its contents.',
    kept: 'Nothing was changed.',
    todo: 'To take in the papers in it like any others, drop it on Capture.',
  },
  'too-many-pages': {
    status: 422,
    happened: '“{name}” has {pages} pages; the limit for one file is {most}.',
    kept: ORIGINAL_KEPT,
    todo: 'Split it into smaller files.',
  },
  'picture-too-large': {
    status: 422,
    happened: '“{name}” has {width} × {height} pixels, more than a page can have.',
    kept: ORIGINAL_KEPT,
    todo: 'Save it at a smaller size; {most} million pixels are plenty for any paper.',
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
    todo: 'It will appear by itself in a moment.',
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
    todo: 'Take it back to Check, see whether one of its pages has a problem, and file it again.',
  },
  'not-marked': {
    status: 422,
    happened: 'The marks could not be put into the PDF of “{name}”: it does not let itself be changed.',
    kept: 'They are shown here, and the PDF is as it was.',
    todo: 'Take the paper back to Check and file it again: its PDF is made anew then.',
  },
  'key-not-opened': {
    status: 403,
    happened: 'The key can’t be opened with this pass phrase.',
    kept: 'Nothing was changed.',
    todo: 'Type the pass phrase again.',
  },
  'key-strange': {
    status: 422,
    happened: 'No key to sign with is in this file, or its password is another one.',
    kept: 'Nothing was changed.',
    todo: 'Choose the file with key and certificate (PKCS #12, .p12 or .pfx), and type its password.',
  },
  'key-over': {
    status: 409,
    happened: 'The certificate of this key was good until {until}.',
    kept: 'Nothing was signed.',
    todo: 'Make another key, or import a newer one.',
  },
  'not-signed': {
    status: 422,
    happened: '“{name}” could not be signed: its PDF does not let itself be changed.',
    kept: 'It is as it was.',
    todo: 'Take the paper back to Check and file it again: its PDF is made anew then.',
  },
  'copies-too-large': {
    status: 413,
    happened: 'These papers are too large together to be copied in one go.',
    kept: 'Nothing was copied.',
    todo: 'Choose fewer of them, or save the folder as ZIP.',
  },
  'entry-sums': {
    status: 422,
    happened: 'Net and tax do not come to the total.',
    kept: 'Nothing was changed.',
    todo: 'Put the sums right, or the total; what is split has to add up.',
  },
  'entry-checked': {
    status: 409,
    happened: 'Entry {serial} is checked, and does not change any more.',
    kept: 'Nothing was changed.',
    todo: 'Unlock it first, if it has to change; that is kept in its history.',
  },
  'sheet-kept': {
    status: 409,
    happened: 'The sheet of “{name}” may not go: {detail}.',
    kept: 'Nothing was changed, and nothing was written down as gone.',
    todo: 'Keep the sheet, and look at the list again.',
  },
  'place-there': {
    status: 409,
    happened: 'There is a box or binder “{name}” already.',
    kept: 'Nothing was changed.',
    todo: 'Give it another name.',
  },
  'entries-not-read': {
    status: 422,
    happened: '“{name}” can’t be read as a list of entries.',
    kept: '{detail} Nothing was taken in.',
    todo: 'Save it as CSV with one row for each entry and a head above the columns.',
  },
  'no-transfer': {
    status: 422,
    happened: 'These lines are not the two ends of one transfer: the same amount out of one account and into another.',
    kept: 'Nothing was changed.',
    todo: 'Choose the entry that they pay as well, or two lines of two accounts.',
  },
  'period-closed': {
    status: 409,
    happened: 'The books are closed until {until}; {day} lies in that.',
    kept: 'Nothing was changed.',
    todo: 'Open them again under Sums if it has to change; that is kept in the history.',
  },
  'entry-changed': {
    status: 409,
    happened: 'Entry {serial} was changed by somebody else meanwhile.',
    kept: 'Their change is kept, and yours was not made.',
    todo: 'Look at it again, then change it.',
  },
  'paper-not-entered': {
    status: 422,
    happened: 'This paper can’t be entered as it is.',
    kept: 'It stays where it is.',
    todo: 'Put right what is marked in its facts, then enter it.',
  },
  'payment-not-possible': {
    status: 422,
    happened: 'Entry {serial}, {who}, can’t be paid by such a file.',
    kept: 'No file was made.',
    todo: '{detail} Leave it out, or put that right.',
  },
  'payer-not-known': {
    status: 409,
    happened: 'It is not known who pays, or from which account.',
    kept: 'No file was made.',
    todo: 'In the ledger, under Set up, say whose books these are, and the IBAN of the account.',
  },
  'statement-not-read': {
    status: 422,
    happened: '“{name}” can’t be read as a statement.',
    kept: '{detail} Nothing was taken in.',
    todo: 'Have the bank write it as CSV, OFX, CAMT.053, MT940 or QIF.',
  },
  'line-tied': {
    status: 409,
    happened: 'A line of a statement is tied already.',
    kept: 'That tie stays.',
    todo: 'Take that tie off first.',
  },
  'statement-tied': {
    status: 409,
    happened: '{count} of its lines are tied to entries.',
    kept: 'The statement stays in the books.',
    todo: 'Take the ties off first.',
  },
  'mail-not-set-up': {
    status: 409,
    happened: 'There is no mail account yet from which it could be sent.',
    kept: 'The mail is kept.',
    todo: 'Set the account up under People and devices, Mail; then send it again.',
  },
  'mail-password-lost': {
    status: 409,
    happened: 'The password of the mail account can’t be opened on this machine.',
    kept: 'Everything else is as it was.',
    todo: 'Type it again under People and devices, Mail.',
  },
  'mail-refused': {
    status: 502,
    happened: 'The mail server refused it: {detail}.',
    kept: 'Nothing was sent; the mail is kept.',
    todo: 'Put this right, then send it again.',
  },
  'mail-waits': {
    status: 502,
    happened: 'The mail server could not take it: {detail}.',
    kept: 'Nothing was sent; the mail is kept.',
    todo: 'It is tried again by itself.',
  },
  'mail-in-part': {
    status: 502,
    happened: 'The mail server did not take it for {addresses}; all others have it.',
    todo: 'Look at the address, and send it there once more.',
  },
  'parcel-elsewhere': {
    status: 409,
    happened: 'This is {state} by now.',
    todo: 'Look at it as it is now.',
  },
  'link-over': {
    status: 410,
    happened: 'There is nothing at this address, or nothing any more.',
    todo: 'Ask whoever gave it to you for another one.',
  },
  'link-password-wrong': {
    status: 403,
    happened: 'That is not the password.',
    todo: 'Ask whoever gave you the address.',
  },
  'stack-changed': {
    status: 409,
    happened: 'The stack was changed in another window.',
    kept: 'The other window’s change was kept.',
    todo: 'Look at the stack as it is now and make your change again.',
  },
  'stack-sorted': { status: 409, happened: 'This stack has already been sorted.', todo: 'Its documents are in Check.' },
  'stack-empty': {
    status: 409,
    happened: 'There are no pages left in this stack.',
    todo: 'Bring a page back, or delete the stack.',
  },
  'stack-arriving': {
    status: 409,
    happened: 'Some files of this stack are still being taken in.',
    todo: 'Wait until all of its pages have arrived.',
  },
  'only-one-paper': {
    status: 409,
    happened: 'Only one paper was found on this page.',
    kept: 'The page was not changed.',
    todo: 'Lay the papers further apart and scan them again.',
  },
  'no-open-book': {
    status: 409,
    happened: 'No open book was found on this page.',
    kept: 'The page was not changed.',
    todo: 'Take it again from straight above, with the whole book and some table around it in the picture.',
  },
  'documents-on-their-way': {
    status: 409,
    happened: 'All documents of this stack have already been filed or put in the bin.',
    kept: 'Nothing was changed.',
    todo: 'Take them back from the shelf to Check first.',
  },
  'document-elsewhere': {
    status: 409,
    happened: '“{name}” is now {state}, so this can’t be done any more.',
    todo: 'Look at it as it is now.',
  },
  'name-missing': {
    status: 400,
    happened: 'The document has no name yet.',
    todo: 'Type the name that you will look for later.',
  },
  'folder-missing': {
    status: 400,
    happened: 'No folder was chosen.',
    todo: 'Choose a folder, or type the name of a new one.',
  },
  'folder-exists': {
    status: 409,
    happened: 'There is already a folder “{name}” here.',
    todo: 'Use that one, or choose another name.',
  },
  'folder-not-empty': {
    status: 409,
    happened: 'The folder “{name}” is not empty, so it was not deleted.',
    kept: 'Everything in it is still there.',
    todo: 'Move or delete what is in it first.',
  },
  'folder-into-itself': { status: 400, happened: 'A folder can’t be moved into itself.', kept: 'Nothing was changed.' },
  'no-lines': {
    status: 404,
    happened: 'No lines with amounts were read from this document.',
    todo: 'Lines are read from invoices and receipts; check that this is one.',
  },
  'no-rows': {
    status: 404,
    happened: 'There is nothing to put into the table.',
    todo: 'Lines are read from bills and statements, rates from papers with tax; choose a row for each paper, or other papers.',
  },
  'text-changed': {
    status: 409,
    happened: '“{text}” is no longer there: the page was read again, or corrected in another window.',
    kept: 'The text was left as it is.',
    todo: 'Look at the word again.',
  },
  'text-own': {
    status: 409,
    happened: 'This page came with its own text, which stays as it is.',
    kept: 'Nothing was changed.',
  },
  'amount-unclear': { status: 400, happened: '“{text}” is not a number.', todo: 'Type it as 1,234.56 or 1.234,56.' },
  'date-unclear': { status: 400, happened: '“{text}” is not a date.', todo: 'Type it as 14.3.2026 or 2026-03-14.' },
  'language-unknown': {
    status: 400,
    happened: '“{name}” is not a language that can be read.',
    todo: 'Choose one from the list.',
  },
  'language-not-added': {
    status: 502,
    happened: '{name} could not be added: the package manager did not install it.',
    kept: 'The other languages are still there.',
    todo: 'Make sure that this machine has a network connection and may install packages, or run “{command}” yourself; then open this list again.',
  },
  'scanner-gone': {
    status: 502,
    happened: 'The scanner does not answer.',
    todo: 'Make sure that it is switched on and on the same network, then try again.',
  },
  'scanner-strange': {
    status: 502,
    happened: 'What answers at this address is not a scanner that Crow Shelf can use.',
    todo: 'It must speak eSCL, as most network scanners do; look for that in the scanner’s own settings.',
  },
  'scanner-busy': {
    status: 409,
    happened: 'The scanner is busy.',
    todo: 'Wait until it has finished, then scan again.',
  },
  'scanner-refused': {
    status: 409,
    happened: 'The scanner can’t scan with these settings.',
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
    todo: 'Push the papers in until the feeder grips them, then scan again.',
  },
  'feeder-jam': {
    status: 409,
    happened: 'A sheet is jammed in the feeder.',
    kept: 'What came through before is in the stack.',
    todo: 'Remove the sheet, put it back on the pile, and scan the rest.',
  },
  'scan-stopped': { status: 409, happened: 'The scan was stopped.', kept: 'What came through before is in the stack.' },
  'watched-gone': {
    status: 409,
    happened: 'The folder “{path}” can’t be reached.',
    kept: 'What was taken in from it is safe.',
    todo: 'Make sure that the drive or the network is connected; Crow Shelf then goes on by itself.',
  },
  'watched-strange': {
    status: 409,
    happened: '“{path}” contains neither “done” nor “refused”; perhaps the drive that belongs there is not connected.',
    kept: 'Nothing in it was touched.',
    todo: 'Connect the drive. If you deleted the two folders yourself, create an empty folder “done” in it.',
  },
  'watched-stuck': {
    status: 409,
    happened: 'Files can’t be moved inside “{path}”: {detail}.',
    kept: 'They are still where they were, and will not be taken in twice.',
    todo: 'Give Crow Shelf permission to write in this folder.',
  },
  'watched-closed': {
    status: 409,
    happened: 'Crow Shelf has no permission to read the file “{name}” in “{path}”.',
    kept: 'It was left where it is.',
    todo: 'Give it permission to read the file.',
  },
  'watched-unfit': {
    status: 400,
    happened: '“{path}” can’t be watched: {detail}.',
    kept: 'Nothing was changed.',
    todo: 'Choose another folder.',
  },
  'watched-full': {
    status: 409,
    happened: '“{path}” already contains {papers} files that would be taken in: {names}.',
    kept: 'Nothing in it was touched.',
    todo: 'If you want all of them taken in, watch it anyway; each is then moved to “done” inside it.',
  },
  'copies-unfit': {
    status: 400,
    happened: 'No copies can be put into “{path}”: {detail}.',
    kept: 'Nothing was changed.',
    todo: 'Choose another folder.',
  },
  'copies-gone': {
    status: 409,
    happened: 'The folder “{path}” can’t be reached, or is not the one that the copies were put into.',
    kept: 'Nothing was written; the papers on the shelf are safe.',
    todo: 'Connect the drive or the network; Crow Shelf then goes on by itself.',
  },
  'copies-not-writable': {
    status: 409,
    happened: 'Copies can’t be written into “{path}”: {detail}.',
    kept: 'What was copied before is there; the papers on the shelf are safe.',
    todo: 'Make room, or allow Crow Shelf to write there; it then goes on by itself.',
  },
  'file-known': {
    status: 409,
    happened: '“{name}” is identical to “{other}”, which was taken in on {when}.',
    kept: 'The earlier one is still there; this one was left as it came.',
    todo: 'Nothing needs doing. If you do want it twice, take it in by hand.',
  },
  'shelf-file-changed': {
    status: 409,
    happened: 'Somebody changed or replaced the file “{path}” in the shelf folder.',
    kept: 'It was left as it is; Crow Shelf also has its own copy.',
    todo: 'Choose which of the two should stay there.',
  },
  'shelf-file-moved': {
    status: 409,
    happened: 'Somebody moved the file “{path}” in the shelf folder to “{now}”.',
    kept: 'It was left where it is.',
    todo: 'Choose whether the document moves with it or the file goes back.',
  },
  'shelf-file-missing': {
    status: 409,
    happened: 'The file “{path}” is no longer in the shelf folder.',
    kept: 'Crow Shelf has its own copy.',
    todo: 'Choose whether to put it back.',
  },
  'shelf-file-unfit': {
    status: 422,
    happened: '“{path}” can’t be taken over: {detail}.',
    kept: 'Nothing was changed.',
    todo: 'Put the document’s own file back; the other one will be kept beside it.',
  },
  'disk-full': {
    status: 507,
    happened: 'The disk that holds {what} is full: {left} MB are left.',
    kept: 'Everything taken in so far is safe; nothing more is being taken in.',
    todo: 'Free some space; what is waiting then goes on by itself.',
  },
  'shelf-gone': {
    status: 503,
    happened: 'The shelf folder “{path}” is not there; perhaps its drive is not connected.',
    kept: 'All documents are safe in the database and can be opened and found; nothing was written in its place.',
    todo: 'Connect the drive, and Crow Shelf goes on by itself; if the folder is lost for good, have it written anew.',
  },
  'shelf-not-writable': {
    status: 500,
    happened: 'The shelf folder can’t be written to: {detail}.',
    kept: 'The document is safe in the database and can be opened and found.',
    todo: 'Free some space or allow writing there; Crow Shelf will try again by itself.',
  },
} as const satisfies Record<string, ProblemText>;

export type ProblemCode = keyof typeof PROBLEMS;

/** What the sentences of a problem are filled in with. */
type ProblemDetails = Record<string, string | number>;

/** A problem as it is kept: its code and what it is about. Sentences are made where it is told. */
export interface KeptProblem {
  code: ProblemCode;
  details: ProblemDetails;
}

/** A problem as it is told: its sentences, filled in. */
export interface ProblemReport extends Partial<KeptProblem> {
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
    details: ProblemDetails = {},
  ) {
    const text: ProblemText = PROBLEMS[code];
    const fill = (sentence: string) => sentence.replace(/\{(\w+)\}/g, (_, name: string) => String(details[name] ?? ''));
    super(fill(text.happened));
    this.name = 'Problem';
    this.status = text.status;
    this.report = {
      code,
      details,
      happened: this.message,
      ...(text.kept && { kept: fill(text.kept) }),
      ...(text.todo && { todo: fill(text.todo) }),
    };
  }
}

/** What is kept of a problem that was told. */
export function keptProblem({ code, details = {} }: ProblemReport): KeptProblem {
  return { code, details };
}

/** A problem that was kept, as it is told; one that was kept as sentences, as they were. */
export function toldProblem(kept: KeptProblem | ProblemReport): ProblemReport {
  return 'happened' in kept ? kept : new Problem(kept.code, kept.details).report;
}

/** A report as one paragraph. */
export function inWords({ happened, kept, todo }: ProblemReport): string {
  return [happened, kept, todo].filter(Boolean).join(' ');
}
