import { Page } from '@crow/contract/pages';

/** The other capture of the same sheet, if there is one among these pages. */
export function twinOf<Each extends Pick<Page, 'id' | 'againOf'>>(page: Each, among: Each[]): Each | undefined {
  return among.find(({ id }) => id === page.againOf) ?? among.findLast(({ againOf }) => againOf === page.id);
}
