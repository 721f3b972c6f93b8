import { render, screen } from '@testing-library/react';
import { later } from './later';

const Station = ({ name }: { name: string }) => <p>{name}</p>;

it('shows nothing until its script is there, then what it was given', async () => {
  let arrive = (_: typeof Station) => {};
  const Part = later(() => new Promise<typeof Station>((resolve) => (arrive = resolve)));
  const { container } = render(<Part name="Sort" />);
  expect(container.textContent).toBe('');
  arrive(Station);
  await screen.findByText('Sort');
});

it('shows at once what was loaded before, and loads it once', async () => {
  let times = 0;
  const Part = later(() => {
    times++;
    return Promise.resolve(Station);
  });
  await Promise.all([Part.load(), Part.load()]);
  render(<Part name="Check" />);
  // Without waiting.
  expect(screen.getByText('Check')).toBeTruthy();
  expect(times).toBe(1);
});

it('is tried again after a line that was cut', async () => {
  let times = 0;
  const Part = later(() => (times++ === 0 ? Promise.reject(new Error('no line')) : Promise.resolve(Station)));
  await expect(Part.load()).rejects.toThrow('no line');
  render(<Part name="Shelf" />);
  await screen.findByText('Shelf');
});
