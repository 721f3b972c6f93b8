import { act, screen } from '@testing-library/react';
import { useState } from 'react';
import { Page } from '@crow/contract/pages';
import { newId, page } from '../../testing/papers';
import { notice, show, StandInServer } from '../../testing/window';
import { useLabels } from './useLabels';

const label = (name: string): Page =>
  page({ dropped: true, divider: { folder: null, kind: null, place: { id: newId(), name } } });

function open(first: Page[]) {
  const stack = { id: newId() };
  let set: (pages: Page[]) => void = () => undefined;
  function Ribbon() {
    const [pageList, setPages] = useState(first);
    set = setPages;
    useLabels({ ...stack, pageList });
    return null;
  }
  show(<Ribbon />, new StandInServer());
  return (pages: Page[]) => act(() => set(pages));
}

it('tells of a label once it is known, and not of those that lay there before', async () => {
  const [before, sheet] = [label('Binder 2025'), page({})];
  const put = open([before, sheet]);
  expect(screen.queryByText(/Binder 2025/)).toBeNull();
  const next = label('Binder 2026');
  put([before, sheet, page({ id: next.id })]);
  expect(screen.queryByText(/Binder 2026/)).toBeNull();
  put([before, sheet, next]);
  const told = await notice(/“Binder 2026”: the sheets that come after/);
  expect(told.getByRole('button', { name: 'What lies in it' })).toBeTruthy();
});
