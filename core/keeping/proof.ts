/** What is known of whether a file can stand for its sheet. */
export interface ProofSigns {
  /** The hash (SHA-256) of the PDF as it is in the database. */
  sha256: string;
  /** The one with which the bytes in the database and on disk last agreed; null for never. */
  agreedSha256: string | null;
  /** Whether they were compared last without agreeing. */
  differed: boolean;
  /** The one with which it was last found in an archive that was looked through; null for never. */
  copiedSha256: string | null;
  /** How many of its pages were not read, or not read to the end, and how many can hardly be read. */
  unread: number;
  illegible: number;
  /** Whether pages seem to be missing, or there twice, by the numbers on them. */
  pagesMissing: boolean;
  /** How many facts nobody confirmed that were read unsurely. */
  doubtful: number;
  /** Whether something on it does not fit, such as check digits. */
  misfits: boolean;
  /** Whether it has a problem of its own, such as a file that somebody changed. */
  troubled: boolean;
}

const FAULTS = {
  troubled: 'something is wrong with its file: see the paper',
  'not-compared': 'its file was not compared with the database yet',
  differed: 'its file on disk is not what the database has',
  'not-copied': 'it is in no archive that was looked through',
  unread: 'a page of it was not read',
  illegible: 'a page of it can hardly be read',
  'pages-missing': 'a page of it seems to be missing',
  doubtful: 'a fact of it is doubtful',
  misfits: 'something on it does not fit: see the paper',
} as const;
export type ProofFault = keyof typeof FAULTS;

/** Says a fault, to stand after “not yet: ”. */
export const sayProofFault = (fault: ProofFault): string => FAULTS[fault];

/** What keeps a file from standing for its sheet; nothing when it is proven. */
export function proofFaults(signs: ProofSigns): ProofFault[] {
  const { sha256, agreedSha256, copiedSha256 } = signs;
  const faults: [ProofFault, boolean][] = [
    ['troubled', signs.troubled],
    ['differed', signs.differed],
    ['not-compared', !signs.differed && agreedSha256 !== sha256],
    ['not-copied', copiedSha256 !== sha256],
    ['unread', signs.unread > 0],
    ['illegible', signs.illegible > 0],
    ['pages-missing', signs.pagesMissing],
    ['doubtful', signs.doubtful > 0],
    ['misfits', signs.misfits],
  ];
  return faults.filter(([, holds]) => holds).map(([fault]) => fault);
}
