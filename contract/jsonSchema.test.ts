import { array, number, object, string } from 'yup';
import { endpoints } from './endpoints';
import { jsonSchema } from './jsonSchema';

it('says in JSON Schema what a Yup schema asks for', () => {
  const schema = object({
    name: string().max(10).required(),
    size: number().integer().min(1),
    kind: string().oneOf(['a', 'b']).nullable().defined(),
    list: array(string().uuid().required()).required(),
  });
  expect(jsonSchema(schema)).toEqual({
    type: 'object',
    required: ['name', 'kind', 'list'],
    properties: {
      name: { type: 'string', maxLength: 10 },
      size: { type: 'integer', minimum: 1 },
      kind: { type: ['string', 'null'], enum: ['a', 'b'] },
      list: { type: 'array', items: { type: 'string', format: 'uuid' } },
    },
  });
});

it('can describe every endpoint of the contract', () => {
  for (const { params, query, body, reply } of Object.values(endpoints)) {
    for (const schema of [params, query, body, reply])
      if (schema) expect(JSON.stringify(jsonSchema(schema))).toContain('type');
  }
});
