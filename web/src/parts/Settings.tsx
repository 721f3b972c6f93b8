import { Popover } from 'radix-ui';
import { Settings as SettingsIcon } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { DAY_FORMS, DayForm, writeDay } from '@crow/core/reading/dayForms';
import { endpoints } from '@crow/contract/endpoints';
import { later } from './later';
import { useChange, useMay, useMe, useSettings } from '../queries';
import { Button, Choice } from './controls';
import { LanguageChoice } from './LanguageChoice';
import { useNarrow } from './useNarrow';
import { SendingChoice } from './SendingChoice';
import { openOnCamera, opensOnCamera } from './start';
import { Scheme, SCHEMES, chooseScheme, chosenScheme } from './scheme';

const OwnKinds = later(async () => (await import('./OwnKinds')).default);

/** A day of which every form differs. */
const EXAMPLE = '2026-11-27';
const DAY_CHOICES = DAY_FORMS.map((value) => ({ value, name: writeDay(EXAMPLE, value) }));
const SCHEME_NAMES: Record<Scheme, string> = { system: 'as on this device', light: 'light', dark: 'dark' };
const SCHEME_CHOICES = SCHEMES.map((value) => ({ value, name: SCHEME_NAMES[value] }));

/** What is set once: the languages and kinds of the papers, how days are written, light or dark. */
export function Settings() {
  const narrow = useNarrow();
  const owns = useMay('own');
  return (
    <Popover.Root>
      <Popover.Trigger className="flex flex-1 flex-col items-center justify-center gap-1 py-2 text-sm hover:bg-ground md:flex-none">
        <SettingsIcon size={18} aria-hidden />
        <span className="max-md:sr-only short:sr-only">Settings</span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side={narrow ? 'top' : 'right'}
          align="end"
          sideOffset={8}
          collisionPadding={8}
          aria-label="Settings"
          // What it holds may still be on its way: the first of it is next by Tab, whatever that will be.
          onOpenAutoFocus={(event) => {
            event.preventDefault();
            (event.currentTarget as HTMLElement).focus();
          }}
          className="z-40 max-h-[85dvh] w-80 max-w-[94vw] overflow-y-auto border border-rule bg-raised p-4"
        >
          <Looks />
          <Here />
          {owns && (
            <>
              <LanguageChoice />
              <OwnKinds />
            </>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** Who is here; the owner goes on to who else may come in. */
function Here() {
  const { data: me } = useMe();
  const leave = useChange(endpoints.leave, [], () => window.location.reload());
  if (!me) return null;
  return (
    <p className="mt-4 flex items-center gap-2 border-t border-rule pt-3 text-sm">
      {me.role === 'owner' ? (
        <Popover.Close asChild>
          <Link to="/people" className="underline">
            People and devices
          </Link>
        </Popover.Close>
      ) : (
        <>
          <span className="flex-1">You are here as {me.name}.</span>
          <Button onClick={() => leave.mutate({})}>Leave</Button>
        </>
      )}
    </p>
  );
}

function Looks() {
  const { data: settings } = useSettings();
  const owns = useMay('own');
  const save = useChange(endpoints.changeSettings, ['settings', 'document']);
  const [scheme, setScheme] = useState(chosenScheme);
  const [onCamera, setOnCamera] = useState(opensOnCamera);
  return (
    <div className="flex flex-col gap-2 text-sm">
      {settings && owns && (
        <Choice<DayForm>
          label="Dates"
          shown
          value={settings.days}
          choices={DAY_CHOICES}
          onChange={(days) => save.mutate({ body: { days } })}
        />
      )}
      <Choice<Scheme>
        label="Appearance in this browser"
        shown
        value={scheme}
        choices={SCHEME_CHOICES}
        onChange={(wanted) => {
          chooseScheme(wanted);
          setScheme(wanted);
        }}
      />
      <SendingChoice />
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="accent-accent"
          checked={onCamera}
          onChange={() => {
            openOnCamera(!onCamera);
            setOnCamera(!onCamera);
          }}
        />
        From the home screen, open on the camera
      </label>
      <p className="text-quiet pointer-coarse:hidden">
        Press ? anywhere to see the keyboard shortcuts, or to turn off those of a single letter.
      </p>
    </div>
  );
}
