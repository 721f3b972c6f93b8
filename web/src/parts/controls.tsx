import { ButtonHTMLAttributes, ReactNode, Ref } from 'react';
import { ProblemReport } from '@crow/contract/problems';

type ButtonProps = ButtonHTMLAttributes<HTMLButtonElement> & {
  /** The one thing that this screen is for. */
  main?: boolean;
  /** The key that does the same, shown beside the words. */
  hint?: string;
  ref?: Ref<HTMLButtonElement>;
};

const BUTTON_SHAPE =
  'inline-flex h-8 shrink-0 items-center gap-2 border px-3 text-sm whitespace-nowrap pointer-coarse:h-11';
const PLAIN_BUTTON = 'border-rule bg-raised text-ink hover:border-quiet';

export function Button({ main, hint, className = '', children, type = 'button', ...rest }: ButtonProps) {
  const look = main ? 'bg-accent text-on-accent border-accent hover:brightness-110' : PLAIN_BUTTON;
  return (
    <button
      type={type}
      className={`${BUTTON_SHAPE} disabled:cursor-default disabled:opacity-45 ${look} ${className}`}
      {...rest}
    >
      {children}
      {hint && <Key>{hint}</Key>}
    </button>
  );
}

/** A button that takes a file of the device. */
export function FileButton({
  accept,
  onFile,
  children,
}: {
  accept: string;
  onFile: (file: File) => void;
  children: ReactNode;
}) {
  return (
    <label className={`${BUTTON_SHAPE} ${PLAIN_BUTTON} cursor-pointer focus-within:outline-2`}>
      {children}
      <input
        type="file"
        accept={accept}
        className="sr-only"
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file) onFile(file);
          // The same file may be chosen once more.
          event.target.value = '';
        }}
      />
    </label>
  );
}

/** A button that is only a picture; its name is said and shown on hover. */
export function IconButton({
  name,
  className = '',
  children,
  type = 'button',
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { name: string }) {
  return (
    <button
      type={type}
      aria-label={name}
      title={name}
      className={`inline-flex size-8 shrink-0 items-center justify-center pointer-coarse:size-11 text-ink hover:bg-sunken disabled:cursor-default disabled:opacity-40 ${className}`}
      {...rest}
    >
      {children}
    </button>
  );
}

/** A key that does the same; not shown where there is hardly a keyboard. */
export function Key({ children }: { children: ReactNode }) {
  return <kbd className="font-mono text-xs opacity-70 pointer-coarse:hidden max-[30rem]:hidden">{children}</kbd>;
}

/** One of a few, each with a name. @param label what is chosen; to be seen beside it when `shown` */
export function Choice<Value extends string | number>({
  label,
  shown,
  value,
  choices,
  onChange,
  className = '',
}: {
  label: string;
  shown?: boolean;
  value: Value;
  choices: { value: Value; name: string }[];
  onChange: (value: Value) => void;
  className?: string;
}) {
  return (
    <label className="flex max-w-full min-w-0 items-center gap-2">
      {shown && (
        <span aria-hidden className="shrink-0">
          {label}
        </span>
      )}
      <select
        aria-label={label}
        className={`h-8 max-w-full min-w-0 border border-rule bg-raised px-1 text-ink pointer-coarse:h-11 ${className}`}
        value={value}
        onChange={(event) => onChange(choices[event.target.selectedIndex].value)}
      >
        {choices.map((each) => (
          <option key={each.value} value={each.value}>
            {each.name}
          </option>
        ))}
      </select>
    </label>
  );
}

/** Something that holds or doesn't, with a box to tick. */
export function Tick({
  checked,
  onChange,
  className = '',
  children,
}: {
  checked: boolean;
  onChange: (checked: boolean) => void;
  className?: string;
  children: ReactNode;
}) {
  return (
    <label className={`flex items-center gap-2 ${className}`}>
      <input
        type="checkbox"
        className="accent-accent"
        checked={checked}
        onChange={(event) => onChange(event.target.checked)}
      />
      {children}
    </label>
  );
}

/** What to do next, where there is nothing yet. */
export function Empty({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <div className="flex h-full flex-col items-center justify-center gap-3 p-8 text-center">
      <h2 className="text-xl font-semibold">{title}</h2>
      <div className="max-w-[48ch] text-lg text-quiet">{children}</div>
    </div>
  );
}

/** A problem where it belongs, in its sentences. */
export function ProblemText({ report, children }: { report: ProblemReport; children?: ReactNode }) {
  return (
    <div role="alert" className="border-l-4 border-danger bg-raised px-3 py-2 text-sm">
      <strong className="font-semibold text-danger">{report.happened}</strong> {report.kept} {report.todo}
      {children}
    </div>
  );
}

export function Progress({ value, of, label }: { value: number; of: number; label: string }) {
  return (
    <div
      role="progressbar"
      aria-label={label}
      aria-valuemin={0}
      aria-valuemax={of}
      aria-valuenow={value}
      className="h-1.5 w-full bg-sunken"
    >
      <div
        className="h-full bg-accent transition-[width] duration-150"
        style={{ width: `${of > 0 ? (100 * value) / of : 0}%` }}
      />
    </div>
  );
}

export const inputLook =
  'h-8 w-full border border-rule bg-raised px-2 pointer-coarse:h-11 text-ink placeholder:text-quiet focus:border-accent focus:outline-2 focus:-outline-offset-1 focus:outline-accent';
