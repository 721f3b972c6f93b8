import { useEffect } from 'react';
import { DocumentSummary } from '@crow/contract/documents';
import { endpoints } from '@crow/contract/endpoints';
import { PackedWish } from '@crow/contract/sending';
import { Choice } from '../../../parts/controls';
import { bytes } from '../../../parts/words';
import { useChange, useSizes } from '../../../queries';

const NAMES: Record<PackedWish['size'], string> = {
  filed: 'as filed',
  full: 'full quality',
  balanced: 'balanced',
  small: 'small',
};

/** How large a copy's PDF is; of one paper with the bytes of each size, which are found out in the background. */
export function SizeChoice({
  documents,
  value,
  onChange,
}: {
  documents: readonly DocumentSummary[];
  value: PackedWish['size'];
  onChange: (size: PackedWish['size']) => void;
}) {
  const only = documents.length === 1 ? documents[0] : undefined;
  const { data: sizes = [] } = useSizes(only?.id ?? '', only !== undefined);
  const { mutate: weigh } = useChange(endpoints.weighDocument, []);
  const id = only?.id;
  useEffect(() => {
    if (id) weigh({ params: { id } });
    // Once for each paper: its sizes come by themselves.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [id]);
  const known: Partial<Record<string, number | null>> = {
    filed: only?.bytes,
    ...Object.fromEntries(sizes.map(({ size, bytes: many }) => [size, many])),
  };
  const choices = (['filed', 'full', 'balanced', 'small'] as const).map((each) => ({
    value: each,
    name: known[each] ? `${NAMES[each]}, ${bytes(known[each])}` : NAMES[each],
  }));
  return <Choice label="Size" shown value={value} choices={choices} onChange={onChange} />;
}
