import { DropdownMenu } from 'radix-ui';
import { Columns3, Sheet } from 'lucide-react';
import { endpoints } from '@crow/contract/endpoints';
import { TABLE_ROWS, TableRows } from '@crow/contract/folders';
import { askBytes } from '../../api';
import { Choice, IconButton } from '../../parts/controls';
import { menuItemLook, menuLook } from '../../parts/menu';
import { useNotices } from '../../parts/notices';
import { saveFile } from '../../parts/saveFile';
import { PAPER_COLUMNS } from './tableColumns';
import { TableForm } from './tableForm';

const ROW_NAMES: Record<TableRows, string> = {
  papers: 'a row for each paper',
  lines: 'a row for each line of bills and statements',
  rates: 'a row for each rate of tax',
};

/** How the papers of a table are grouped, and which columns it has. */
export function TableTools({ form, onForm }: { form: TableForm; onForm: (form: TableForm) => void }) {
  return (
    <>
      <Choice
        label="Grouped"
        value={form.group}
        choices={[
          { value: 'none', name: 'not grouped' },
          { value: 'month', name: 'by month' },
          { value: 'who', name: 'by who' },
        ]}
        onChange={(group) => onForm({ ...form, group })}
      />
      <DropdownMenu.Root>
        <DropdownMenu.Trigger asChild>
          <IconButton name="Columns">
            <Columns3 size={17} />
          </IconButton>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content className={menuLook} align="end">
            {PAPER_COLUMNS.map(({ id, name }) => (
              <DropdownMenu.CheckboxItem
                key={id}
                className={menuItemLook}
                checked={form.columns.includes(id)}
                onCheckedChange={(shown) =>
                  onForm({
                    ...form,
                    columns: shown ? [...form.columns, id] : form.columns.filter((each) => each !== id),
                  })
                }
                // Several are chosen in one go.
                onSelect={(event) => event.preventDefault()}
              >
                {name}
                <DropdownMenu.ItemIndicator>✓</DropdownMenu.ItemIndicator>
              </DropdownMenu.CheckboxItem>
            ))}
            <DropdownMenu.Separator className="my-1 border-t border-rule" />
            <DropdownMenu.Item className={menuItemLook} onSelect={() => onForm({ ...form, widths: {} })}>
              Usual widths
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </>
  );
}

/** Saves papers as a spreadsheet. @param name what the file is called, without an ending */
export function SaveTable({ ids, name }: { ids: readonly string[]; name: string }) {
  const { tell } = useNotices();
  const save = async (rows: TableRows, as: 'csv' | 'xlsx') => {
    try {
      const bytes = await askBytes(endpoints.shelfTable, { body: { ids: [...ids], rows, as } });
      saveFile(bytes, `${name}.${as}`);
    } catch (error) {
      tell({ error });
    }
  };
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <IconButton name="Save as a spreadsheet" disabled={ids.length === 0}>
          <Sheet size={17} />
        </IconButton>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className={menuLook} align="end">
          {(['xlsx', 'csv'] as const).map((as) => (
            <DropdownMenu.Group key={as}>
              <DropdownMenu.Label className="px-3 pt-1.5 text-sm text-quiet">{as.toUpperCase()}</DropdownMenu.Label>
              {TABLE_ROWS.map((rows) => (
                <DropdownMenu.Item key={rows} className={menuItemLook} onSelect={() => void save(rows, as)}>
                  {ROW_NAMES[rows]}
                </DropdownMenu.Item>
              ))}
            </DropdownMenu.Group>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
