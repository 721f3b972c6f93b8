import { StackSummary } from '@crow/contract/stacks';

/** Whether nobody needs to look at how a stack is cut. */
export const isClear = ({ pages, read, doubtful, documents, files }: StackSummary): boolean =>
  read >= pages && doubtful === 0 && documents > 0 && !files.some(({ state }) => state === 'waiting');

/** Whether a stack is one document, as far as anybody can tell, and so need not be sorted. */
export const isOneDocument = (stack: StackSummary): boolean => stack.documents === 1 && isClear(stack);
