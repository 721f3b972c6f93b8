import { runChild } from './child';

const limits = { seconds: 5, megabytes: 500 };

it('gives what a program prints, and its exit code', async () => {
  const { code, output, errors } = await runChild('sh', ['-c', 'cat; echo oh >&2; exit 3'], {
    limits,
    what: 'Testing',
    input: Buffer.from('in'),
  });
  expect({ code, output: output.toString(), errors }).toEqual({ code: 3, output: 'in', errors: 'oh\n' });
});

it('stops a program that takes too long, and says so', async () => {
  const running = runChild('sleep', ['20'], { limits: { seconds: 0.3, megabytes: 500 }, what: 'Sleeping' });
  await expect(running).rejects.toMatchObject({ code: 'took-too-long', message: expect.stringContaining('Sleeping') });
});

it('does not let a program take more memory than allowed', async () => {
  // dd sets its whole block aside before it copies anything.
  const copy = (size: string) =>
    runChild('dd', ['if=/dev/zero', 'of=/dev/null', `bs=${size}`, 'count=1'], { limits, what: 'Copying' });
  expect((await copy('100M')).code).toBe(0);
  expect((await copy('900M')).code).not.toBe(0);
});

it('ends a program that prints without end', async () => {
  const { code, output } = await runChild('yes', [], { limits, what: 'Talking', mostOutput: 100_000 });
  expect(code).not.toBe(0);
  expect(output.length).toBeLessThanOrEqual(100_000);
});
