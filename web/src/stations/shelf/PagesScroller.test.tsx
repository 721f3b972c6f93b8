import { screen } from '@testing-library/react';
import { Profiler, useState } from 'react';
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

it('goes on showing pages where there are fewer of them, or more, than where it stood', async () => {
  const all = [page(), page(), page()];
  function Growing() {
    const [count, setCount] = useState(1);
    return (
      <>
        <button onClick={() => setCount(3)}>more</button>
        <button onClick={() => setCount(1)}>fewer</button>
        <PagesScroller
          pages={all.slice(0, count)}
          zoom="usual"
          onZoom={() => undefined}
          turn={0}
          hits={[]}
          onCurrent={() => undefined}
        />
      </>
    );
  }
  const { user } = show(<Growing />, new StandInServer());
  const region = await screen.findByRole('region', { name: 'Pages' });
  await sleep(50);
  // Below the only page, where the second will be.
  region.scrollTop = 1500;
  await user.click(screen.getByRole('button', { name: 'more' }));
  await user.click(screen.getByRole('button', { name: 'fewer' }));
  await sleep(50);
  expect(screen.getByRole('region', { name: 'Pages' })).toBe(region);
});
