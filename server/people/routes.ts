import { FastifyInstance } from 'fastify';
import { endpoints } from '@crow/contract/endpoints';
import { Context } from '../platform/context';
import { serve } from '../platform/http/serve';
import { addPerson, changePassPhrase, endSession, listPeople, removePerson } from './people';

/** Who may come in, and which of their browsers are in. */
export function peopleRoutes(app: FastifyInstance, context: Context): void {
  const { manager } = context.database.source;
  serve(app, endpoints.whoAmI, async ({ actor: { id, name, role } }) => ({ id, name, role }));
  serve(app, endpoints.leave, ({ actor, request }) => endSession(manager, actor, request.sessionId));
  serve(app, endpoints.listPeople, ({ request }) => listPeople(manager, request.sessionId));
  serve(app, endpoints.addPerson, ({ actor, body }) => addPerson(manager, actor, body));
  serve(app, endpoints.changePassPhrase, ({ actor, params, body }) =>
    changePassPhrase(manager, actor, params.id, body.passPhrase),
  );
  serve(app, endpoints.removePerson, ({ actor, params }) => removePerson(manager, actor, params.id));
  serve(app, endpoints.endSession, ({ actor, params }) => endSession(manager, actor, params.id));
}
