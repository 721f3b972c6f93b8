import { Tabs } from 'radix-ui';
import { useSearchParams } from 'react-router';
import { useMay } from '../../queries';
import { Empty } from '../../parts/controls';
import { Devices } from './Devices';
import { HistoryList } from './HistoryList';
import { MailSetUp } from './MailSetUp';
import { Persons } from './Persons';

const PARTS = { people: 'People', devices: 'Devices', mail: 'Mail', history: 'What was done' } as const;
type Part = keyof typeof PARTS;

/** Who may come in, by what devices, from where mails go, and what everybody did; only the owner sees it. */
export default function People() {
  const owns = useMay('own');
  const [search, setSearch] = useSearchParams();
  const wanted = search.get('part') ?? '';
  const part: Part = wanted in PARTS ? (wanted as Part) : 'people';
  if (!owns) return <Empty title="Only the owner decides who may come in" />;
  return (
    <Tabs.Root
      className="flex h-full flex-col"
      value={part}
      onValueChange={(value) => setSearch({ part: value }, { replace: true })}
      activationMode="automatic"
    >
      <header className="flex h-14 shrink-0 items-center gap-4 border-b border-rule px-3 md:px-6">
        <h1 className="text-xl font-semibold max-md:sr-only">People and devices</h1>
        <Tabs.List aria-label="People and devices" className="flex gap-1">
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
      <Tabs.Content value="mail" className="min-h-0 flex-1 overflow-y-auto">
        <MailSetUp />
      </Tabs.Content>
      <Tabs.Content value="history" className="min-h-0 flex-1">
        <HistoryList />
      </Tabs.Content>
    </Tabs.Root>
  );
}
