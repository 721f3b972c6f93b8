import { array, boolean, InferType, object, string } from 'yup';
import { id, idParams, problem, when } from './basics';
import { endpoint } from './endpoint';
import { Role, ROLES } from './roles';

/** As what the owner can let somebody in by name and pass phrase. */
export const JOINING = ['helper', 'reader'] as const satisfies readonly Role[];

const MOST_FOLDERS = 200;
/** What a reader sees: all folders, or those named with the folders inside them. */
const folders = {
  allFolders: boolean().default(false),
  folders: array(id).max(MOST_FOLDERS).default([]),
};

const SHORTEST_PHRASE = 12;
const passPhrase = string()
  .min(
    SHORTEST_PHRASE,
    `A pass phrase has at least ${SHORTEST_PHRASE} characters; four words are easier to remember than one.`,
  )
  .max(200, 'A pass phrase has at most 200 characters.')
  .required();
const role = string<Role>()
  .oneOf(Object.keys(ROLES) as Role[])
  .required();

export const openSession = object({
  id,
  /** What the browser says that it is. */
  browser: string().defined(),
  /** What the device is called that was let in by a code; '' for others. */
  device: string().defined(),
  since: when,
  used: when,
  /** Whether it is the one that asks. */
  own: boolean().required(),
});
export const person = object({
  id,
  name: string().required(),
  role,
  /** Whether they come in by name and pass phrase. */
  byPhrase: boolean().required(),
  allFolders: boolean().required(),
  folders: array(object({ id, path: string().required() }).required()).required(),
  sessions: array(openSession).required(),
});
export type Person = InferType<typeof person>;

export const newPerson = object({
  name: string().trim().required('A person has a name.').max(60, 'A name has at most 60 characters.'),
  role: string<(typeof JOINING)[number]>().oneOf(JOINING).required(),
  passPhrase,
  ...folders,
});
export type NewPerson = InferType<typeof newPerson>;

/** A device to be let in by a code: as whom (a person), or as a device that only captures. */
export const newDevice = object({
  name: string().trim().required('A device has a name.').max(60, 'A name has at most 60 characters.'),
  person: string().uuid(),
});
export type NewDevice = InferType<typeof newDevice>;

/** What a device is let in with: an address that is good once, for a few minutes, also as a square code (rows of 0 and 1, 1 is dark). */
export const pairing = object({
  address: string().required(),
  code: array(string().required()).required(),
  goodUntil: when,
});
export type Pairing = InferType<typeof pairing>;

/** The door for other devices. */
export const networkDoor = object({
  open: boolean().required(),
  /** Whether a proxy in front is the door, which is opened and shut there. */
  byProxy: boolean().required(),
  /** Where it is reached, the likeliest first. */
  addresses: array(string().required()).required(),
  /** SHA-256 of the certificate of the authority that was made on this machine, in pairs; null where the owner brings a certificate. */
  fingerprint: string().nullable().defined(),
  /** Why it could not be opened. */
  problem,
});
export type NetworkDoor = InferType<typeof networkDoor>;

export const peopleEndpoints = {
  whoAmI: endpoint({
    right: 'look',
    method: 'GET',
    path: '/me',
    summary: 'Who asks, and what they may do',
    reply: object({ id, name: string().required(), role }),
  }),
  leave: endpoint({
    right: 'look',
    method: 'POST',
    path: '/leave',
    summary: 'End the session of the browser that asks',
  }),
  listPeople: endpoint({
    right: 'own',
    method: 'GET',
    path: '/people',
    summary: 'Who may come in, and which of their browsers are in',
    reply: array(person).required(),
  }),
  addPerson: endpoint({
    right: 'own',
    method: 'POST',
    path: '/people',
    summary: 'Let somebody come in by name and pass phrase',
    body: newPerson,
  }),
  changePassPhrase: endpoint({
    right: 'own',
    method: 'PUT',
    path: '/people/:id/pass-phrase',
    summary: 'Give somebody another pass phrase; their sessions end',
    params: idParams,
    body: object({ passPhrase }),
  }),
  changeFolders: endpoint({
    right: 'own',
    method: 'PUT',
    path: '/people/:id/folders',
    summary: 'Which folders a reader sees',
    params: idParams,
    body: object(folders),
  }),
  letDeviceIn: endpoint({
    right: 'own',
    method: 'POST',
    path: '/devices',
    summary: 'Make a code that lets a device in, once, within a few minutes',
    body: newDevice,
    reply: pairing,
  }),
  readDoor: endpoint({
    right: 'own',
    method: 'GET',
    path: '/door',
    summary: 'Whether other devices can reach the program, and where',
    reply: networkDoor,
  }),
  changeDoor: endpoint({
    right: 'own',
    method: 'PUT',
    path: '/door',
    summary: 'Open or shut the door for other devices',
    body: object({ open: boolean().required() }),
    reply: networkDoor,
  }),
  removePerson: endpoint({
    right: 'own',
    method: 'DELETE',
    path: '/people/:id',
    summary: 'Let somebody in no more; their sessions end, what they did stays in the history',
    params: idParams,
  }),
  endSession: endpoint({
    right: 'own',
    method: 'DELETE',
    path: '/sessions/:id',
    summary: 'End the session of one browser',
    params: idParams,
  }),
};
