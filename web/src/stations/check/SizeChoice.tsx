import { Select } from 'radix-ui';
import { ChevronDown } from 'lucide-react';
import { useEffect, useState } from 'react';
import { endpoints } from '@crow/contract/endpoints';
import { PDF_SIZES, PdfSize } from '@crow/contract/documents';
import { bytes } from '../../parts/words';
import { useChange, useSizes } from '../../queries';

const SIZE_NAMES: Record<PdfSize, string> = { full: 'Full', balanced: 'Balanced', small: 'Small' };
const SIZE_MEANS: Record<PdfSize, string> = {
  full: 'as it was captured',
  balanced: '200 dots an inch',
  small: 'sharp letters, coarse background',
};

/** How large the PDF is to be: each size with what it comes to, found out once the list is opened. */
export function SizeChoice({
  documentId,
  size,
  onChange,
}: {
  documentId: string;
  size: PdfSize;
  onChange: (size: PdfSize) => void;
}) {
  const [opened, setOpened] = useState(false);
  const { data: weighed } = useSizes(documentId, opened);
  const { mutate: weigh } = useChange(endpoints.weighDocument, []);
  const isMissing = weighed?.some((each) => each.bytes === null) ?? false;
  useEffect(() => {
    if (isMissing) weigh({ params: { id: documentId } });
  }, [isMissing, weigh, documentId]);
  const known = (each: PdfSize) => weighed?.find((one) => one.size === each)?.bytes;
  const current = known(size);
  return (
    <Select.Root
      value={size}
      onValueChange={(value) => onChange(value as PdfSize)}
      onOpenChange={() => setOpened(true)}
    >
      <Select.Trigger
        aria-label="Size of the PDF"
        className="flex h-6 items-center justify-between gap-2 text-xs text-quiet hover:text-ink"
      >
        <span>
          {SIZE_NAMES[size]}
          {current != null && ` · ${bytes(current)}`}
        </span>
        <ChevronDown size={13} aria-hidden />
      </Select.Trigger>
      <Select.Portal>
        <Select.Content
          position="popper"
          side="top"
          align="end"
          className="z-40 w-72 border border-rule bg-raised py-1"
        >
          <Select.Viewport>
            {PDF_SIZES.map((each) => (
              <Select.Item
                key={each}
                value={each}
                className="flex cursor-default items-baseline gap-3 px-3 py-1.5 outline-none data-[highlighted]:bg-sunken data-[state=checked]:font-semibold"
              >
                <span className="flex-1">
                  <Select.ItemText>{SIZE_NAMES[each]}</Select.ItemText>
                  <span className="block text-xs font-normal text-quiet">{SIZE_MEANS[each]}</span>
                </span>
                <span className="font-mono text-sm tabular-nums">
                  {known(each) == null ? <span className="text-quiet">weighing …</span> : bytes(known(each)!)}
                </span>
              </Select.Item>
            ))}
          </Select.Viewport>
        </Select.Content>
      </Select.Portal>
    </Select.Root>
  );
}
