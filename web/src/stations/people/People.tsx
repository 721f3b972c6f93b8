import { useState } from 'react';
import { Tabs } from 'radix-ui';
import { useMay } from '../../queries';
import { Empty } from '../../parts/controls';
import { Devices } from './Devices';
import { HistoryList } from './HistoryList';
import { Persons } from './Persons';

const PARTS = { people: 'People', devices: 'Devices', history: 'What was done' } as const;
type Part = keyof typeof PARTS;

/** Who may come in, by what devices, and what everybody did; only the owner sees it. */
export default function People() {
  const owns = useMay('own');
  const [part, setPart] = useState<Part>('people');
  if (!owns) return <Empty title="Only the owner decides who may come in" />;
  return (
    <Tabs.Root
      className="flex h-full flex-col"
      value={part}
      onValueChange={(value) => setPart(value as Part)}
      activationMode="automatic"
    >
      <header className="flex h-14 shrink-0 items-center gap-4 border-b border-rule px-3 md:px-6">
        <h1 className="text-xl font-semibold max-md:sr-only">Who may come in</h1>
        <Tabs.List aria-label="Who may come in" className="flex gap-1">
          {Object.entries(PARTS).map(([value, name]) => (
            <Tabs.Trigger
              key={value}
              value={value}
              className="h-11 border-b-3 border-transparent px-3 text-base data-[state=active]:border-accent data-[state=active]:font-semibold md:h-9"
            >
              {name}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
      </header>
      <Tabs.Content value="people" className="min-h-0 flex-1 overflow-y-auto">
        <Persons />
      </Tabs.Content>
      <Tabs.Content value="devices" className="min-h-0 flex-1 overflow-y-auto">
        <Devices />
      </Tabs.Content>
      <Tabs.Content value="history" className="min-h-0 flex-1">
        <HistoryList />
      </Tabs.Content>
    </Tabs.Root>
  );
}
