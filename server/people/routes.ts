import { FastifyInstance } from 'fastify';
import { endpoints } from '@crow/contract/endpoints';
import { Context } from '../platform/context';
import { serve } from '../platform/http/serve';
import { documentDeeds, listDeeds } from './deeds';
import { squareCode } from '../engines/squareCode';
import { NetworkDoor } from './networkDoor';
import {
  addPerson,
  changeFolders,
  changePassPhrase,
  endSession,
  letDeviceIn,
  listPeople,
  removePerson,
} from './people';

/** Who may come in, and which of their browsers are in. */
export function peopleRoutes(
  app: FastifyInstance,
  context: Context,
  { networkDoor }: { networkDoor: NetworkDoor },
): void {
  const { manager } = context.database.source;
  serve(app, endpoints.whoAmI, async ({ actor: { id, name, role } }) => ({ id, name, role }));
  serve(app, endpoints.leave, ({ actor, request }) => endSession(manager, actor, request.sessionId));
  serve(app, endpoints.listPeople, ({ request }) => listPeople(manager, request.sessionId));
  serve(app, endpoints.addPerson, ({ actor, body }) => addPerson(manager, actor, body));
  serve(app, endpoints.changePassPhrase, ({ actor, params, body }) =>
    changePassPhrase(manager, actor, params.id, body.passPhrase),
  );
  serve(app, endpoints.changeFolders, ({ actor, params, body }) => changeFolders(manager, actor, params.id, body));
  serve(app, endpoints.letDeviceIn, async ({ actor, body }) => {
    const { entrance } = networkDoor;
    const { key, goodUntil } = await letDeviceIn(manager, actor, body);
    const address = `${entrance}/enter?key=${key}`;
    const code = squareCode(address).map((row) => row.map((dark) => (dark ? '1' : '0')).join(''));
    return { address, code, goodUntil: goodUntil.toISOString() };
  });
  serve(app, endpoints.readDoor, () => networkDoor.show());
  serve(app, endpoints.changeDoor, ({ actor, body }) => networkDoor.change(actor, body.open));
  serve(app, endpoints.removePerson, ({ actor, params }) => removePerson(manager, actor, params.id));
  serve(app, endpoints.listHistory, ({ query }) => listDeeds(manager, query));
  serve(app, endpoints.documentHistory, ({ params }) => documentDeeds(manager, params.id));
  serve(app, endpoints.endSession, ({ actor, params }) => endSession(manager, actor, params.id));
}
