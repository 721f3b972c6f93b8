import { Ink, INKS, MarkKind } from '@crow/core/pdf/marks/mark';
import { useKept } from '../../../parts/useKept';

/** A tool that is at hand: what it puts on a page. */
export type Tool = MarkKind;

export const TOOL_NAMES: Record<Tool, string> = {
  highlight: 'Highlight',
  underline: 'Underline',
  strike: 'Strike',
  drawing: 'Draw',
  text: 'Text',
  comment: 'Comment',
  stamp: 'Stamp',
  signature: 'Sign',
};
export const MARK_NAMES: Record<MarkKind, string> = {
  ...TOOL_NAMES,
  strike: 'Struck',
  underline: 'Underlined',
  highlight: 'Highlighted',
  drawing: 'Drawing',
  signature: 'Signature',
};
export const TOOL_KEYS: Record<Tool, string> = {
  highlight: 'h',
  underline: 'u',
  strike: 's',
  drawing: 'd',
  text: 'e',
  comment: 'c',
  stamp: 'b',
  signature: 'g',
};

/** Inks by the words that they are called by. */
export const INK_NAMES: Record<Ink, string> = { amber: 'Amber', sea: 'Sea, dashed', plum: 'Plum, dotted' };

export interface Hand {
  ink: Ink;
  /** The words of stamps, the one that is used first. */
  stamps: string[];
  dated: boolean;
}

/** What somebody has in the hand when they mark something; kept in this browser. */
export const useHand = () =>
  useKept<Hand>('crow-marks', { ink: INKS[0], stamps: ['Paid', 'Copy', 'Checked'], dated: true });
