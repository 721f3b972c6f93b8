import { Context } from '../platform/context';
import { proposeForOpen, proposeForStack } from './proposing';

/** Where documents begin is proposed anew whenever more is known of a stack's pages, or they lie otherwise. */
export function listenInSorting({ happenings }: Context): void {
  happenings.on('stack-arranged', async (manager, { stackId }) => void (await proposeForStack(manager, stackId)));
  happenings.on('page-prepared', (manager, { stackId }) => proposeForOpen(manager, stackId));
}
