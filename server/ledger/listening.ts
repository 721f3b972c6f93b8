import { Context } from '../platform/context';
import { whenFiled, whenUnfiled } from './papers';

/** What becomes of the books when papers are filed, and taken back. */
export function listenInLedger(context: Context): void {
  const { happenings } = context;
  happenings.on('document-filed', (manager, filed) => whenFiled(context, manager, filed));
  happenings.on('document-unfiled', (manager, unfiled) => whenUnfiled(context, manager, unfiled));
}
