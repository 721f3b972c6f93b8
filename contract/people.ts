import { array, boolean, InferType, object, string } from 'yup';
import { id, idParams, when } from './basics';
import { endpoint } from './endpoint';
import { Role, ROLES } from './roles';

/**
 * Whom the owner can let in. Readers and devices are told apart in the table of roles, but have no door yet: what they see is not
 * narrowed to what is theirs.
 */
export const JOINING = ['helper'] as const satisfies readonly Role[];

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
  since: when,
  used: when,
  /** Whether it is the one that asks. */
  own: boolean().required(),
});
export const person = object({ id, name: string().required(), role, sessions: array(openSession).required() });
export type Person = InferType<typeof person>;

export const newPerson = object({
  name: string().trim().required('A person has a name.').max(60, 'A name has at most 60 characters.'),
  role: string<(typeof JOINING)[number]>().oneOf(JOINING).required(),
  passPhrase,
});
export type NewPerson = InferType<typeof newPerson>;

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
    reply: person,
  }),
  changePassPhrase: endpoint({
    right: 'own',
    method: 'PUT',
    path: '/people/:id/pass-phrase',
    summary: 'Give somebody another pass phrase; their sessions end',
    params: idParams,
    body: object({ passPhrase }),
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
