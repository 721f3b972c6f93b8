import { screen, within } from '@testing-library/react';
import { useState } from 'react';
import { endpoints } from '@crow/contract/endpoints';
import { SHOWN } from '../../testing/missing';
import { summary } from '../../testing/papers';
import { show, StandInServer } from '../../testing/window';
import { ChosenProvider, useChosen } from './chosen';
import { PapersTable } from './PapersTable';
import { inOrder } from './tableColumns';
import { TableForm } from './tableForm';

// The tests' window lays nothing out; rows are drawn for as much as is seen.
Object.defineProperties(Element.prototype, {
  clientWidth: { get: () => SHOWN.width },
  clientHeight: { get: () => SHOWN.height },
});

const GBP = (units: number) => ({ units, currency: 'GBP' });
const PAPERS = [
  summary({ name: 'a', vendor: 'Ash & Co', date: '2026-02-03', total: GBP(5000), state: 'filed' }),
  summary({ name: 'b', vendor: 'Birch Ltd', date: '2026-03-09', total: GBP(120050), state: 'filed' }),
  summary({ name: 'c', vendor: 'ash & co', date: null, total: null, state: 'filed' }),
  summary({ name: 'd', vendor: 'Cedar', date: '2026-03-01', total: GBP(900), state: 'filed' }),
];

async function open(part: Partial<TableForm> = {}) {
  const opened: string[] = [];
  function Table() {
    const [form, setForm] = useState<TableForm>({
      columns: ['date', 'vendor', 'total'],
      widths: {},
      sorted: [{ id: 'date', desc: true }],
      group: 'none',
      inside: false,
      ...part,
    });
    const [current, setCurrent] = useState<string>();
    const chosen = [...useChosen().ids].map((id) => PAPERS.find((paper) => paper.id === id)!.name);
    return (
      <>
        <output>{chosen.join()}</output>
        <PapersTable
          documents={inOrder(PAPERS, form.sorted)}
          form={form}
          onForm={setForm}
          current={current}
          onCurrent={setCurrent}
          onOpen={(id) => opened.push(PAPERS.find((paper) => paper.id === id)!.name)}
        />
      </>
    );
  }
  const server = new StandInServer().on(endpoints.listFolders, () => []);
  const shown = show(
    <ChosenProvider>
      <Table />
    </ChosenProvider>,
    server,
    '/shelf/',
  );
  await screen.findByTitle('d');
  return { opened, ...shown };
}

const names = () =>
  within(screen.getByRole('grid', { name: 'Papers' }))
    .getAllByRole('row')
    .map((row) => row.title)
    .filter(Boolean);

it('sorts by any column both ways; what has nothing in it comes last either way', async () => {
  const { user } = await open();
  expect(names()).toEqual(['b', 'd', 'a', 'c']);
  await user.click(screen.getByRole('button', { name: 'Amount' }));
  expect(names()).toEqual(['b', 'a', 'd', 'c']);
  await user.click(screen.getByRole('button', { name: 'Amount' }));
  expect(names()).toEqual(['d', 'a', 'b', 'c']);
  expect(screen.getByRole('columnheader', { name: 'Amount' }).getAttribute('aria-sort')).toBe('ascending');
});

it('groups by month and by who, each with its sum', async () => {
  await open({ group: 'month' });
  const rows = within(screen.getByRole('grid')).getAllByRole('row').slice(1);
  expect(rows.map(({ textContent, title }) => title || textContent)).toEqual([
    'March 20262 papers1,209.50 GBP',
    'b',
    'd',
    'February 20261 paper50.00 GBP',
    'a',
    'Without a date1 paper',
    'c',
  ]);
});

it('is gone through and chosen from with keys alone', async () => {
  const { user, opened } = await open();
  screen.getByRole('grid').focus();
  await user.keyboard('{ArrowDown}{Enter}');
  expect(opened).toEqual(['d']);
  await user.keyboard('x{ArrowDown}{ArrowDown} ');
  expect(screen.getByRole('status').textContent).toBe('d,c');
  await user.keyboard('{Home}{Enter}{End}{Enter}');
  expect(opened).toEqual(['d', 'b', 'c']);
});

it('opens a paper by a click on its line, and chooses those between two with Shift', async () => {
  const { user, opened } = await open();
  await user.click(screen.getByText('1,200.50 GBP'));
  expect(opened).toEqual(['b']);
  await user.click(screen.getByRole('checkbox', { name: 'Choose b' }));
  await user.keyboard('{Shift>}');
  await user.click(screen.getByText('50.00 GBP'));
  await user.keyboard('{/Shift}');
  expect(screen.getByRole('status').textContent).toBe('b,d,a');
  expect(opened).toEqual(['b']);
});
