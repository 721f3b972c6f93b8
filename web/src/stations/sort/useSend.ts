import { useRef } from 'react';
import { useNavigate } from 'react-router';
import { endpoints } from '@crow/contract/endpoints';
import { Stack } from '@crow/contract/stacks';
import { useNotices } from '../../parts/notices';
import { count } from '../../parts/words';
import { useChange } from '../../queries';

/** Sends the documents to Check, once everything done on the table is saved. */
export function useSend(stack: Stack, settled: () => Promise<void>): () => void {
  const navigate = useNavigate();
  const { tell } = useNotices();
  const sort = useChange(endpoints.sortStack, ['stack', 'document']);
  const takeBack = useChange(
    endpoints.unsortStack,
    ['stack', 'document'],
    (back) => void navigate(`/sort/${back.stack}`),
  );
  const sending = useRef(false);
  const send = async () => {
    if (sending.current) return;
    sending.current = true;
    try {
      await settled();
      const { documents } = await sort.mutateAsync({ params: { id: stack.id } });
      tell({
        text: `${count(documents.length, 'document')} from “${stack.name}” now in Check.`,
        action: { label: 'Back to the table', run: () => takeBack.mutate({ params: { id: stack.id } }) },
      });
      void navigate(`/check/${documents[0]}`);
    } catch {
      // The problem has been told.
    } finally {
      sending.current = false;
    }
  };
  return () => void send();
}
