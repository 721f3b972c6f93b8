import { problemInWords } from '../../parts/books/words';
import { useBooks, usePaperBooks } from '../../queries';

/** Beside what files a paper: what becomes of it in the books by the same key; leads to the note in the margin. */
export function BooksLine({ documentId, folder }: { documentId: string; folder: string }) {
  const { data: paper } = usePaperBooks(documentId, folder);
  const { data: books } = useBooks(Boolean(paper));
  if (!paper || !books) return null;
  const fit = paper.fits.find(({ id }) => id === paper.attachTo);
  if (!paper.enters && !fit && !paper.entry) return null;
  const nameOf = (id: string | null | undefined) => books.categories.find((each) => each.id === id)?.name;
  const names = [...new Set(paper.parts.map(({ categoryId }) => nameOf(categoryId) ?? 'no category'))];
  const [text, isDoubtful] = paper.entry
    ? [`entry ${paper.entry.serial} in the books`, false]
    : fit
      ? [`the paper of entry ${fit.serial}, ${fit.who}`, false]
      : paper.problems.length > 0
        ? [`not entered: ${problemInWords(paper.problems[0])}`, true]
        : [`entered under ${names.join(', ')}`, names.includes('no category')];
  return (
    <button
      className={`mt-1 block max-w-full truncate text-left text-xs underline underline-offset-2 ${isDoubtful ? 'text-attention' : 'text-quiet'}`}
      onClick={() => {
        const note = document.querySelector<HTMLElement>('[data-books]');
        note?.scrollIntoView({ block: 'center' });
        note?.querySelector<HTMLElement>('select, input, button')?.focus();
      }}
    >
      {isDoubtful && '! '}
      {text}
    </button>
  );
}
