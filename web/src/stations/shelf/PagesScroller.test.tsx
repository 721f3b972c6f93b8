import { screen } from '@testing-library/react';
import { Profiler } from 'react';
import { page } from '../../testing/papers';
import { show, StandInServer } from '../../testing/window';
import { PagesScroller } from './PagesScroller';

const sleep = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

it('rests once its pages are drawn: nothing is laid out again while nothing changes', async () => {
  let drawn = 0;
  const pages = [page(), page()];
  show(
    <Profiler id="pages" onRender={() => drawn++}>
      <PagesScroller
        pages={pages}
        zoom="usual"
        onZoom={() => undefined}
        turn={0}
        hits={[]}
        onCurrent={() => undefined}
        onScroller={() => undefined}
      />
    </Profiler>,
    new StandInServer(),
  );
  await screen.findByRole('region', { name: 'Pages' });
  await sleep(200);
  const before = drawn;
  await sleep(200);
  expect(drawn).toBe(before);
});
