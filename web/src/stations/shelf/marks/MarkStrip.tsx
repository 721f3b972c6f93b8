import { DropdownMenu, RadioGroup } from 'radix-ui';
import {
  ChevronUp,
  Highlighter,
  MessageSquareText,
  Pencil,
  Redo2,
  Signature as SignaturePen,
  Stamp,
  Strikethrough,
  Type,
  Underline,
  Undo2,
} from 'lucide-react';
import { ReactNode, useState } from 'react';
import { endpoints } from '@crow/contract/endpoints';
import { ShownMark, Signature } from '@crow/contract/marks';
import { Ink, INK_LOOKS, INKS, MARK_KINDS } from '@crow/core/pdf/marks/mark';
import { AskText } from '../../../parts/AskText';
import { IconButton } from '../../../parts/controls';
import { menuItemLook, menuLook } from '../../../parts/menu';
import { useChange, useSignatures } from '../../../queries';
import { css } from './look';
import { MarkNote } from './MarkNote';
import { MakeSignature, SignaturePicture } from './Signatures';
import { Hand, INK_NAMES, Tool, TOOL_KEYS, TOOL_NAMES } from './tools';
import { Marks } from './useMarks';

interface StripProps {
  documentId: string;
  marks: Marks;
  tool: Tool | undefined;
  onTool: (tool: Tool | undefined) => void;
  hand: Hand;
  onHand: (hand: Hand) => void;
  signing: Signature | undefined;
  onSigning: (signature: Signature) => void;
  selected: ShownMark | undefined;
  onSelect: (id: string | undefined) => void;
  /** Puts the mark that is chosen at the same place of all other pages. */
  onEveryPage?: () => void;
}

/** The tools for marks, at the foot of the open paper; over them what is known of the mark that is picked up. */
export function MarkStrip(props: StripProps) {
  const { marks, tool, onTool, hand, onHand, signing, onSigning, selected } = props;
  const [making, setMaking] = useState(false);
  const [stamping, setStamping] = useState(false);
  const { data: signatures = [] } = useSignatures(true);
  const forget = useChange(endpoints.forgetSignature, ['signature']);
  const choose = (to: Tool) => {
    if (to === 'signature' && !signing && signatures.length === 0) return setMaking(true);
    if (to === 'signature' && !signing) onSigning(signatures[0]);
    onTool(tool === to ? undefined : to);
  };
  return (
    <footer className="@container shrink-0 border-t border-rule bg-ground">
      {selected && <MarkNote key={selected.id} {...props} selected={selected} />}
      <div role="toolbar" aria-label="Marks" className="flex items-center gap-1 overflow-x-auto px-2 py-1.5">
        {MARK_KINDS.map((each) => (
          <span key={each} className="flex shrink-0">
            <button
              aria-pressed={tool === each}
              onClick={() => choose(each)}
              title={`${TOOL_NAMES[each]} (${TOOL_KEYS[each]})`}
              aria-label={each === 'stamp' ? `Stamp “${hand.stamps[0]}”` : TOOL_NAMES[each]}
              className={`flex h-8 min-w-8 items-center justify-center gap-1.5 px-1.5 text-sm whitespace-nowrap pointer-coarse:h-11 pointer-coarse:min-w-11 ${tool === each ? 'bg-accent text-on-accent' : 'hover:bg-sunken'}`}
            >
              <ToolPicture tool={each} />
              <span className="hidden @4xl:inline">{each === 'stamp' ? `“${hand.stamps[0]}”` : TOOL_NAMES[each]}</span>
            </button>
            {each === 'stamp' && (
              <More name="Other stamps">
                {hand.stamps.map((words) => (
                  <DropdownMenu.Item
                    key={words}
                    className={menuItemLook}
                    onSelect={() => {
                      onHand({ ...hand, stamps: [words, ...hand.stamps.filter((other) => other !== words)] });
                      onTool('stamp');
                    }}
                  >
                    {words}
                  </DropdownMenu.Item>
                ))}
                <DropdownMenu.Separator className="my-1 border-t border-rule" />
                <DropdownMenu.CheckboxItem
                  className={menuItemLook}
                  checked={hand.dated}
                  onCheckedChange={(dated) => onHand({ ...hand, dated })}
                >
                  with the date <DropdownMenu.ItemIndicator>✓</DropdownMenu.ItemIndicator>
                </DropdownMenu.CheckboxItem>
                <DropdownMenu.Item className={menuItemLook} onSelect={() => setStamping(true)}>
                  Words of your own …
                </DropdownMenu.Item>
              </More>
            )}
            {each === 'signature' && (
              <More name="Signatures">
                {signatures.map((signature) => (
                  <DropdownMenu.Item
                    key={signature.id}
                    className={menuItemLook}
                    onSelect={() => {
                      onSigning(signature);
                      onTool('signature');
                    }}
                  >
                    <SignaturePicture signature={signature} />
                  </DropdownMenu.Item>
                ))}
                {signatures.length > 0 && (
                  <DropdownMenu.Sub>
                    <DropdownMenu.SubTrigger className={menuItemLook}>Keep no longer</DropdownMenu.SubTrigger>
                    <DropdownMenu.Portal>
                      <DropdownMenu.SubContent className={menuLook}>
                        {signatures.map((signature) => (
                          <DropdownMenu.Item
                            key={signature.id}
                            className={menuItemLook}
                            onSelect={() => forget.mutate({ params: { id: signature.id } })}
                          >
                            <SignaturePicture signature={signature} />
                          </DropdownMenu.Item>
                        ))}
                      </DropdownMenu.SubContent>
                    </DropdownMenu.Portal>
                  </DropdownMenu.Sub>
                )}
                <DropdownMenu.Item className={menuItemLook} onSelect={() => setMaking(true)}>
                  Another signature …
                </DropdownMenu.Item>
              </More>
            )}
          </span>
        ))}
        <Inks ink={selected?.ink ?? hand.ink} onInk={(ink) => inkTo(ink)} />
        <span className="ml-auto flex shrink-0">
          <IconButton name="Undo (Ctrl+z)" disabled={!marks.undo} onClick={marks.undo}>
            <Undo2 size={17} />
          </IconButton>
          <IconButton name="Redo (Ctrl+Shift+z)" disabled={!marks.redo} onClick={marks.redo}>
            <Redo2 size={17} />
          </IconButton>
        </span>
      </div>
      {making && (
        <MakeSignature
          onClose={() => setMaking(false)}
          onMade={(signature) => {
            onSigning(signature);
            onTool('signature');
          }}
        />
      )}
      {stamping && (
        <AskText
          title="A stamp of your own"
          label="Its words"
          confirm="Keep it"
          onClose={() => setStamping(false)}
          onConfirm={(words) => {
            onHand({ ...hand, stamps: [words, ...hand.stamps.filter((other) => other !== words)] });
            onTool('stamp');
            return Promise.resolve();
          }}
        />
      )}
    </footer>
  );

  function inkTo(ink: Ink): void {
    onHand({ ...hand, ink });
    if (selected) marks.put([{ ...selected, ink }]);
  }
}

const PICTURES: Record<Tool, typeof Highlighter> = {
  highlight: Highlighter,
  underline: Underline,
  strike: Strikethrough,
  drawing: Pencil,
  text: Type,
  comment: MessageSquareText,
  stamp: Stamp,
  signature: SignaturePen,
};

function ToolPicture({ tool }: { tool: Tool }) {
  const Picture = PICTURES[tool];
  return <Picture size={17} aria-hidden />;
}

function More({ name, children }: { name: string; children: ReactNode }) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <IconButton name={name} className="w-6 pointer-coarse:w-8">
          <ChevronUp size={14} />
        </IconButton>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className={menuLook} side="top" align="end">
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** The three inks, each by its colour, its pattern and its word. */
function Inks({ ink, onInk }: { ink: Ink; onInk: (ink: Ink) => void }) {
  return (
    <RadioGroup.Root
      aria-label="Ink"
      orientation="horizontal"
      value={ink}
      onValueChange={(to) => onInk(to as Ink)}
      className="ml-2 flex shrink-0 items-center gap-1 border-l border-rule pl-2"
    >
      {INKS.map((each) => {
        const { wash, line, dash } = INK_LOOKS[each];
        return (
          <RadioGroup.Item
            key={each}
            value={each}
            aria-label={INK_NAMES[each]}
            title={INK_NAMES[each]}
            className="flex size-8 items-center justify-center pointer-coarse:size-11 data-[state=checked]:outline-2 data-[state=checked]:-outline-offset-2 data-[state=checked]:outline-accent"
          >
            <svg viewBox="0 0 20 16" className="w-5" aria-hidden>
              <rect width="20" height="12" fill={css(wash)} />
              <line
                {...{ x1: 1, x2: 19, y1: 14, y2: 14 }}
                stroke={css(line)}
                strokeWidth="2"
                strokeDasharray={dash.map((value) => value * 1.2).join(' ')}
                strokeLinecap={each === 'plum' ? 'round' : 'butt'}
              />
            </svg>
          </RadioGroup.Item>
        );
      })}
    </RadioGroup.Root>
  );
}
