import { inWords, Problem, ProblemCode, PROBLEMS } from './problems';

it('says what happened with the details filled in, what was kept, and what to do', () => {
  const { report, status } = new Problem('too-many-pages', { name: 'a.pdf', pages: 5000, most: 1000 });
  expect(status).toBe(422);
  expect(inWords(report)).toBe(
    '“a.pdf” has 5000 pages; the limit for one file is 1000. The file is kept as it came. Split it into smaller files.',
  );
});

it.each(Object.keys(PROBLEMS) as ProblemCode[])('%s is told in whole sentences', (code) => {
  const { happened, kept, todo } = new Problem(code).report;
  for (const sentence of [happened, kept, todo]) if (sentence) expect(sentence).toMatch(/[.?]$/);
});
