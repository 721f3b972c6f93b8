import { Context } from '../platform/context';
import { changePageIn } from './changingPages';

/** What pages do when a stack is arranged. */
export function listenInPages(context: Context): void {
  context.happenings.on('page-rearranged', (manager, { pageId, turn, version }) =>
    changePageIn(context, manager, pageId, turn, version),
  );
}
