import { object, string } from 'yup';
import { addressOf, asker, callOf } from './client';
import { endpoint } from './endpoint';

const change = endpoint({
  right: 'work',
  method: 'PATCH',
  path: '/papers/:id/notes/:name',
  summary: 'Change a note',
  params: object({ id: string().required(), name: string().required() }),
  body: object({ value: string().required() }),
  reply: object({ value: string().required() }),
});

it('puts what is asked into the address, whatever stands in it', () => {
  expect(addressOf(change, { params: { id: 'a/b?', name: 'who' } })).toBe('/api/papers/a%2Fb%3F/notes/who');
  expect(addressOf(change, { params: { id: '1', name: 'x' }, query: { q: 'a b&c', most: 5, by: undefined } })).toBe(
    '/api/papers/1/notes/x?q=a+b%26c&most=5',
  );
});

it('sends a body as JSON, and none where there is none', () => {
  expect(callOf(change, { body: { value: 'ß' } })).toEqual({
    method: 'PATCH',
    headers: { 'content-type': 'application/json' },
    body: '{"value":"ß"}',
  });
  expect(callOf(change, {})).toEqual({ method: 'PATCH', headers: {} });
});

it('gives what came back, and nothing where nothing did', async () => {
  const told = asker(async () => ({ status: 200, json: async () => ({ value: 'as kept' }) }));
  expect(await told(change, { params: { id: '1', name: 'x' }, body: { value: 'new' } })).toEqual({ value: 'as kept' });
  const silent = asker(async () => ({ status: 204, json: () => Promise.reject(new Error('no body')) }));
  expect(await silent(change, { params: { id: '1', name: 'x' }, body: { value: 'new' } })).toBeUndefined();
});
