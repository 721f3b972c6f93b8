import { endpoints } from '@crow/contract/endpoints';
import { rows } from '../platform/database';
import { scanned } from '../testing/made';
import { TestRoom } from '../testing/room';
import { sweepOldPictures } from './sweeping';

let room: TestRoom;
beforeAll(async () => void (room = await TestRoom.open()));
afterAll(() => room.close());

const keys = async () =>
  (
    await rows<{ recipe: string }>(
      room.context.database.source.manager,
      'select recipe from derived_picture order by recipe',
    )
  ).map(({ recipe }) => recipe);
const daysPass = () =>
  room.context.database.source.query(`update blob set created_at = created_at - interval '2 days'`);

it('sweeps pictures that nothing asks for any more, once nobody goes back to them, and makes them again when somebody does', async () => {
  const stack = await room.takeInAndRead({ 'note.jpg': await scanned('Madder and weld') });
  const [{ id, version, turn }] = stack.pageList;
  const before = await keys();
  expect(before.length).toBeGreaterThan(0);
  await daysPass();
  expect(await sweepOldPictures(room.context)).toBe(0);
  const recipe = { corners: null, angle: 1, look: 'grey', paper: [595, 842], marks: [] } as never;
  await room.ask(endpoints.changePages, { body: { changes: [{ id, recipe, turn }] } });
  await room.work();
  // Made a moment ago: both are kept.
  expect((await keys()).length).toBeGreaterThan(before.length);
  expect(await sweepOldPictures(room.context)).toBe(before.length);
  expect((await keys()).some((key) => before.includes(key))).toBe(false);
  const blobs = await rows(
    room.context.database.source.manager,
    'select 1 from blob where id not in (select picture_blob_id from derived_picture)',
  );
  expect(blobs).toHaveLength(1);
  await room.ask(endpoints.undoStack, { params: { id: stack.id } });
  await room.work();
  const picture = await room.send(endpoints.pagePicture, {
    params: { id, size: 'screen' },
    query: { turn: String(turn), version },
  });
  expect(picture.status).toBe(200);
});
