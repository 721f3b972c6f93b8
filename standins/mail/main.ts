import { startMailPage } from './page';
import { startMailServer } from './server';

/** The stand-in mail server as a process of its own; CROW_MAIL_PORT and CROW_MAIL_PAGE_PORT say which ports it takes (0: any). */
const server = await startMailServer({ port: Number(process.env.CROW_MAIL_PORT ?? 0) });
const page = await startMailPage(server, { port: Number(process.env.CROW_MAIL_PAGE_PORT ?? 0) });
process.send?.({ listening: page.address });
const stop = () => void Promise.all([page.close(), server.close()]).then(() => process.exit(0));
process.on('SIGTERM', stop);
process.on('SIGINT', stop);
process.on('disconnect', stop);
