import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { KeysPanel } from './KeysPanel';
import { isEngaged, nameOf, useKeys } from './keys';

const press = (key: string, held: Partial<Record<'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey', boolean>> = {}) =>
  nameOf({ key, ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...held });

it.each([
  ['c', press('c')],
  ['Shift+R', press('R', { shiftKey: true })],
  ['?', press('?', { shiftKey: true })],
  ['Ctrl+z', press('z', { ctrlKey: true })],
  ['Ctrl+Shift+z', press('Z', { metaKey: true, shiftKey: true })],
  ['Ctrl+Enter', press('Enter', { ctrlKey: true })],
  ['Alt+ArrowLeft', press('ArrowLeft', { altKey: true })],
  ['Shift+ArrowDown', press('ArrowDown', { shiftKey: true })],
])('calls a key %s', (name, pressed) => {
  expect(pressed).toBe(name);
});

function Station() {
  const [said, setSaid] = useState<string[]>([]);
  const say = (what: string) => () => setSaid((before) => [...before, what]);
  useKeys(
    { c: say('cut'), Enter: say('accept'), ' ': say('look'), ArrowDown: say('down'), 'Ctrl+Enter': say('send') },
    [
      ['c', 'Cut here'],
      ['Enter', 'Accept'],
    ],
  );
  return (
    <>
      <KeysPanel />
      <output>{said.join(' ')}</output>
      <button onClick={say('pressed')}>A button</button>
      <input aria-label="A field" />
      <select aria-label="A choice">
        <option>One</option>
        <option>Two</option>
      </select>
      <input type="radio" aria-label="A radio" />
    </>
  );
}

async function open() {
  localStorage.clear();
  render(<Station />);
  const user = userEvent.setup();
  return { user, said: () => screen.getByRole('status').textContent };
}

describe('keys', () => {
  it('act while nothing has the focus that takes them', async () => {
    const { user, said } = await open();
    await user.keyboard('c{Enter} {ArrowDown}');
    expect(said()).toBe('cut accept look down');
  });

  it('leave Enter and Space to a button that has the focus, and letters act all the same', async () => {
    const { user, said } = await open();
    screen.getByText('A button').focus();
    await user.keyboard('{Enter} c{Control>}{Enter}{/Control}');
    expect(
      said()
        ?.split(' ')
        .filter((each) => each !== 'pressed'),
    ).toEqual(['cut', 'send']);
    expect(said()).toContain('pressed pressed');
  });

  it('leave to fields what is typed, and to choices the arrows', async () => {
    const { user, said } = await open();
    await user.type(screen.getByLabelText('A field'), 'c {Enter}{ArrowDown}');
    screen.getByLabelText('A choice').focus();
    await user.keyboard('c{ArrowDown}');
    screen.getByLabelText('A radio').focus();
    await user.keyboard('{ArrowDown}');
    expect(said()).toBe('');
  });

  it('of one letter are switched off and on where all keys are shown', async () => {
    const { user, said } = await open();
    await user.keyboard('?');
    await screen.findByText('Cut here');
    await user.click(screen.getByRole('checkbox'));
    await user.keyboard('{Escape}c{Control>}{Enter}{/Control}');
    expect(said()).toBe('send');
    await user.keyboard('?');
    await user.click(screen.getByRole('checkbox'));
    await user.keyboard('{Escape}c');
    expect(said()).toBe('send cut');
  });
});

it('leaves the focus to who is in a field, or in what lies over the station, and to nobody else', () => {
  render(
    <>
      <button>Of the station</button>
      <input aria-label="A field" />
      <div role="dialog" tabIndex={-1} aria-label="Settings">
        <button>In the settings</button>
      </div>
    </>,
  );
  const engagedIn = (element: HTMLElement) => {
    element.focus();
    return isEngaged();
  };
  expect(isEngaged()).toBe(false);
  expect(engagedIn(screen.getByText('Of the station'))).toBe(false);
  expect(engagedIn(screen.getByLabelText('A field'))).toBe(true);
  expect(engagedIn(screen.getByRole('dialog'))).toBe(true);
  expect(engagedIn(screen.getByText('In the settings'))).toBe(true);
});
