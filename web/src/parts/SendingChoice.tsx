import { Sending, SENDING } from '../outbox/outboxStore';
import { Choice } from './controls';
import { useIntake } from './intake';

const NAMES: Record<Sending, string> = {
  'by-itself': 'by itself',
  'not-metered': 'by itself, but not over a metered line',
  'when-told': 'only when told to',
};
const CHOICES = SENDING.map((value) => ({ value, name: NAMES[value] }));

/** When what was captured on this device is sent. */
export function SendingChoice() {
  const { sending, chooseSending } = useIntake();
  return (
    <Choice<Sending>
      label="Send"
      shown
      value={sending}
      choices={CHOICES}
      onChange={chooseSending}
      className="max-w-52"
    />
  );
}
