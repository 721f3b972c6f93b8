import { Context } from '../platform/context';
import { layWhereSheetsGo } from './queries';

/** Where the sheets of papers go when these are filed. */
export function listenInKeeping({ happenings }: Context): void {
  happenings.on('document-filed', (manager, { documentId }) => layWhereSheetsGo(manager, documentId));
}
