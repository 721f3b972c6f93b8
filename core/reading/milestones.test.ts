import { isMilestone } from './milestones';

const looks = (of: number) => Array.from({ length: of }, (_, at) => at + 1).filter((done) => isMilestone(done, of));

it('looks after each of a few pages', () => {
  expect(looks(20)).toHaveLength(20);
});

it('looks every so often on the way through many, and at the end', () => {
  for (const pages of [33, 100, 501, 2000]) {
    expect(looks(pages).length).toBeLessThanOrEqual(33);
    expect(looks(pages).at(-1)).toBe(pages);
  }
});
