import { ArrowLeft, ArrowRight, Redo2, RotateCcw, RotateCw, Undo2, ZoomIn, ZoomOut } from 'lucide-react';
import { RadioGroup } from 'radix-ui';
import { useState } from 'react';
import { useParams } from 'react-router';
import { endpoints } from '@crow/contract/endpoints';
import { Page } from '@crow/contract/pages';
import { Stack } from '@crow/contract/stacks';
import { addTurns, Turn } from '@crow/core/geometry';
import { LOOKS, Look } from '@crow/core/imaging/looks';
import { wholeQuad } from '@crow/core/imaging/quad';
import { Recipe } from '@crow/core/imaging/recipe';
import { PAPER_SIZES } from '@crow/core/imaging/straighten';
import { ask } from '../../api';
import { Button, Empty, IconButton } from '../../parts/controls';
import { KeyWords, useKeys } from '../../parts/keys';
import { useNarrow } from '../../parts/useNarrow';
import { useNotices } from '../../parts/notices';
import { useWave, warningOn } from '../../parts/Warning';
import { useWayBack } from '../../parts/wayBack';
import { count, LOOK_NAMES } from '../../parts/words';
import { useChange, useStack } from '../../queries';
import { OutlinePane } from './OutlinePane';
import { ResultPane } from './ResultPane';
import { OtherPage, SameForOthers } from './SameForOthers';
import { usePreview } from './usePreview';

const KEYS: KeyWords = [
  ['Enter', 'Done'],
  ['ArrowLeft ArrowRight', 'From page to page'],
  ['r Shift+R', 'Turn it clockwise, or the other way'],
  ['f w', 'Find the sheet again, or take the whole picture'],
  ['Alt+1 … Alt+5', 'Its look'],
  ['b', 'Compare with before'],
  ['l', 'Lift a mark: with the arrow keys the brush moves, Space lays it on, Enter lifts what lies under it'],
  ['+ -', 'Larger or smaller'],
  ['y', 'Accept a page in spite of its warning'],
  ['Ctrl+z Ctrl+Shift+z', 'Undo, redo'],
];

/** How a page is made of its picture, shown and changed: outline, angle, look, marks, paper. */
export default function PageEditor() {
  const { stack: stackId, page: pageId } = useParams();
  const { data: stack } = useStack(stackId);
  if (!stack) return null;
  const page = stack.pageList.find(({ id }) => id === pageId);
  if (!page) return <Empty title="This page is not there any more" />;
  return <Editor key={page.id} stack={stack} page={page} />;
}

interface Draft {
  recipe: Recipe;
  turn: Turn;
}

const BRUSHES = { small: 0.006, middle: 0.014, large: 0.032 };
const ZOOMS = [1, 1.6, 2.5, 4];
const UNSURE = 0.75;

function Editor({ stack, page }: { stack: Stack; page: Page }) {
  const { back, onTo, selected } = useWayBack(stack.state === 'open' ? '/capture' : '/check');
  const wave = useWave();
  const { tell } = useNotices();
  const [history, setHistory] = useState<{ steps: Draft[]; at: number }>(() => ({ steps: [draftOf(page)], at: 0 }));
  const [moving, setMoving] = useState<Draft>();
  const [zoom, setZoom] = useState(0);
  const zoomBy = (by: number) => setZoom(Math.max(0, Math.min(ZOOMS.length - 1, zoom + by)));
  const [comparing, setComparing] = useState(false);
  const [brush, setBrush] = useState<keyof typeof BRUSHES>();
  const narrow = useNarrow();
  /** On a narrow screen one of the two is shown: the picture with its outline, or the page made of it. */
  const [pane, setPane] = useState<'picture' | 'page'>('picture');
  const takeBrush = (size?: keyof typeof BRUSHES) => {
    setBrush(size);
    if (size) setPane('page');
  };
  const save = useChange(endpoints.changePages, ['stack']);
  const [version, setVersion] = useState(page.version);
  if (page.version !== version && history.at === 0 && !moving) {
    // Its outline has been found while nobody had touched anything.
    setVersion(page.version);
    setHistory({ steps: [draftOf(page)], at: 0 });
  }
  const { recipe, turn } = moving ?? history.steps[history.at];
  const { source, preview } = usePreview(page, recipe, turn, ZOOMS[zoom]);
  const place = stack.pageList.findIndex(({ id }) => id === page.id);

  const take = (draft: Partial<Recipe>, turned = turn) => {
    const step = { recipe: { ...recipe, ...draft }, turn: turned };
    setMoving(undefined);
    setHistory(({ steps, at }) => ({ steps: [...steps.slice(0, at + 1), step], at: at + 1 }));
  };
  const step = (by: number) =>
    setHistory(({ steps, at }) => ({ steps, at: Math.max(0, Math.min(steps.length - 1, at + by)) }));
  const turnBy = (by: 90 | 270) => take({}, addTurns(turn, by));
  const findAgain = async () => {
    try {
      const found = await ask(endpoints.findSheet, { params: { id: page.id } });
      take({ bend: undefined, ...(found.recipe as Recipe), marks: recipe.marks }, found.turn as Turn);
    } catch (error) {
      tell({ error });
    }
  };
  const wholePicture = () => take({ ...wholeRecipe(page), bend: undefined, look: recipe.look, marks: recipe.marks });
  const takeAsFlat = () => recipe.bend && take({ bend: undefined });
  const saveIt = async () => {
    if (history.at > 0)
      await save.mutateAsync({ body: { changes: [{ id: page.id, recipe, turn }] } }).catch(() => undefined);
  };
  const leaf = (by: number) => {
    const next = stack.pageList[place + by];
    if (next) void saveIt().then(() => onTo(`/page/${stack.id}/${next.id}`));
  };
  const done = () => void saveIt().then(back);
  const applyToOthers = async (others: OtherPage[]) => {
    const turnOf = new Map(stack.pageList.map((each) => [each.id, each.turn]));
    const changes = [
      ...others.map((other) => ({ ...other, turn: turnOf.get(other.id)! })),
      ...(history.at > 0 ? [{ id: page.id, recipe, turn }] : []),
    ];
    await save.mutateAsync({ body: { changes } }).catch(() => undefined);
    tell({ text: `${count(others.length, 'other page')} made the same.` });
  };
  useKeys(
    {
      Enter: done,
      r: () => turnBy(90),
      'Shift+R': () => turnBy(270),
      f: () => void findAgain(),
      w: wholePicture,
      n: takeAsFlat,
      '+': () => zoomBy(1),
      '-': () => zoomBy(-1),
      b: () => setComparing(!comparing),
      y: () => warningOn(page) && wave(page),
      l: () => takeBrush(brush ? undefined : 'middle'),
      'Ctrl+z': () => step(-1),
      'Ctrl+Shift+z': () => step(1),
      'Ctrl+Shift+Z': () => step(1),
      ArrowRight: () => leaf(1),
      ArrowLeft: () => leaf(-1),
      ...Object.fromEntries(LOOKS.map((look, index) => [`Alt+${index + 1}`, () => take({ look })])),
    },
    KEYS,
  );
  const zoomButtons = (
    <>
      <IconButton name="Smaller (-)" onClick={() => zoomBy(-1)} disabled={zoom === 0}>
        <ZoomOut size={17} />
      </IconButton>
      <IconButton name="Larger (+)" onClick={() => zoomBy(1)} disabled={zoom === ZOOMS.length - 1}>
        <ZoomIn size={17} />
      </IconButton>
    </>
  );
  const unsure = page.confidence !== null && page.confidence < UNSURE && history.at === 0;
  return (
    <div className="flex h-full flex-col">
      <header className="flex h-14 shrink-0 items-center gap-2 border-b border-rule px-2 max-md:gap-0 md:px-6">
        <h1 className="text-lg font-semibold whitespace-nowrap max-md:px-2">
          <span className="max-md:sr-only">Page </span>
          {place + 1} of {stack.pageList.length}
        </h1>
        <IconButton name="The page before (←)" onClick={() => leaf(-1)} disabled={place === 0}>
          <ArrowLeft size={17} />
        </IconButton>
        <IconButton name="The next page (→)" onClick={() => leaf(1)} disabled={place === stack.pageList.length - 1}>
          <ArrowRight size={17} />
        </IconButton>
        <p className="mr-auto min-w-0 truncate text-quiet max-md:invisible">
          {unsure ? 'Not sure of the outline: look at its corners.' : page.fileName}
        </p>
        {!narrow && zoomButtons}
        <IconButton name="Undo (Ctrl+Z)" onClick={() => step(-1)} disabled={history.at === 0}>
          <Undo2 size={17} />
        </IconButton>
        <IconButton
          name="Redo (Ctrl+Shift+Z)"
          onClick={() => step(1)}
          disabled={history.at === history.steps.length - 1}
        >
          <Redo2 size={17} />
        </IconButton>
        <Button main onClick={done} hint="Enter">
          Done
        </Button>
      </header>
      {narrow && (
        <div className="flex h-12 shrink-0 items-center gap-2 border-b border-rule px-4">
          {(['picture', 'page'] as const).map((each) => (
            <Button
              key={each}
              aria-pressed={pane === each}
              className={pane === each ? 'border-accent font-semibold' : ''}
              onClick={() => setPane(each)}
            >
              {each === 'picture' ? 'Picture' : 'Page'}
            </Button>
          ))}
          <span className="mr-auto" />
          {pane === 'page' && zoomButtons}
        </div>
      )}
      <div className="flex min-h-0 flex-1 flex-col md:flex-row">
        {(!narrow || pane === 'picture') &&
          (source ? (
            <OutlinePane
              source={source}
              corners={recipe.corners ?? wholeQuad(1, 1)}
              bend={recipe.bend}
              unsure={unsure}
              onChange={(corners, settled) =>
                settled ? take({ corners, angle: 0 }) : setMoving({ recipe: { ...recipe, corners, angle: 0 }, turn })
              }
            />
          ) : (
            <div className="min-w-0 flex-1 bg-sunken" aria-busy />
          ))}
        {(!narrow || pane === 'page') && (
          <ResultPane
            preview={preview}
            turn={turn}
            comparing={comparing}
            brush={brush && BRUSHES[brush]}
            onMark={(mark) => take({ marks: [...recipe.marks, mark] })}
            label={`Page ${place + 1} as it will be`}
            zoom={ZOOMS[zoom]}
          />
        )}
        <aside className="flex shrink-0 flex-col gap-5 overflow-y-auto border-t border-rule p-4 max-md:max-h-[38%] md:w-[232px] md:border-t-0 md:border-l">
          <section>
            <h2 className="mb-1.5 text-xs text-quiet">Look</h2>
            <RadioGroup.Root
              aria-label="Look"
              className="flex flex-col"
              value={recipe.look}
              onValueChange={(look) => take({ look: look as Look })}
            >
              {LOOKS.map((look, index) => (
                <RadioGroup.Item
                  key={look}
                  value={look}
                  className="flex items-center justify-between border-l-2 border-transparent px-2 py-1 text-left hover:bg-raised data-[state=checked]:border-accent data-[state=checked]:bg-raised data-[state=checked]:font-semibold"
                >
                  {LOOK_NAMES[look]}
                  <kbd className="font-mono text-xs text-quiet">{`Alt+${index + 1}`}</kbd>
                </RadioGroup.Item>
              ))}
            </RadioGroup.Root>
            <div className="mt-2 flex flex-wrap gap-2">
              <Button onClick={() => setComparing(!comparing)} aria-pressed={comparing} hint="b">
                {comparing ? 'After only' : 'Before and after'}
              </Button>
              <SameForOthers
                pages={stack.pageList}
                own={page.id}
                recipe={recipe}
                recipeOf={(each) => draftOf(each).recipe}
                chosen={selected}
                onApply={(others) => void applyToOthers(others)}
              />
            </div>
          </section>
          <section>
            <h2 className="mb-1.5 text-xs text-quiet">Outline</h2>
            <div className="flex flex-wrap gap-2">
              <Button onClick={() => void findAgain()} hint="f">
                Find it again
              </Button>
              <Button onClick={wholePicture} hint="w">
                Whole picture
              </Button>
              {recipe.bend && (
                <Button onClick={takeAsFlat} hint="n">
                  It lies flat
                </Button>
              )}
            </div>
          </section>
          <section>
            <h2 className="mb-1.5 text-xs text-quiet">Turn</h2>
            <div className="flex items-center gap-2">
              <IconButton name="A quarter to the left (Shift+R)" onClick={() => turnBy(270)}>
                <RotateCcw size={17} />
              </IconButton>
              <IconButton name="A quarter to the right (r)" onClick={() => turnBy(90)}>
                <RotateCw size={17} />
              </IconButton>
              <label className="flex min-w-0 flex-1 items-center gap-2 text-sm">
                <input
                  type="range"
                  aria-label="Fine angle in degrees"
                  className="min-w-0 flex-1 accent-accent"
                  min={-8}
                  max={8}
                  step={0.1}
                  value={recipe.angle}
                  onChange={(event) => setMoving({ recipe: { ...recipe, angle: Number(event.target.value) }, turn })}
                  onPointerUp={() => moving && take({})}
                  onKeyUp={() => moving && take({})}
                />
                <span className="w-11 text-right font-mono">{recipe.angle.toFixed(1)}°</span>
              </label>
            </div>
          </section>
          <section>
            <h2 className="mb-1.5 text-xs text-quiet">Lift a mark</h2>
            <div className="flex flex-wrap gap-2">
              <Button onClick={() => takeBrush(brush ? undefined : 'middle')} aria-pressed={Boolean(brush)} hint="l">
                {brush ? 'Put the brush away' : 'Take the brush'}
              </Button>
              {brush &&
                (Object.keys(BRUSHES) as (keyof typeof BRUSHES)[]).map((size) => (
                  <Button
                    key={size}
                    onClick={() => setBrush(size)}
                    aria-pressed={brush === size}
                    className={brush === size ? 'border-accent' : ''}
                  >
                    {size}
                  </Button>
                ))}
            </div>
            <p className="mt-1.5 text-xs text-quiet">Wipe over a stain or a scribble; the print under it stays.</p>
          </section>
          <PaperChoice recipe={recipe} onChoose={(paper) => take({ paper })} />
          {page.legibility && page.legibility.advice.length > 0 && (
            <section>
              <h2 className="mb-1.5 text-xs text-quiet">Legibility</h2>
              {page.legibility.advice.map((sentence) => (
                <p key={sentence} className="mb-1.5 border-l-2 border-attention pl-2 text-sm">
                  ! {sentence}
                </p>
              ))}
              {warningOn(page) && (
                <Button onClick={() => wave(page)} hint="y">
                  Good enough
                </Button>
              )}
            </section>
          )}
        </aside>
      </div>
    </div>
  );
}

function PaperChoice({ recipe, onChoose }: { recipe: Recipe; onChoose: (paper: [number, number]) => void }) {
  const [width, height] = recipe.paper;
  const near = PAPER_SIZES.find(
    (size) => Math.abs(Math.min(width, height) - size.width) < 3 && Math.abs(Math.max(width, height) - size.height) < 3,
  );
  const landscape = width > height;
  const set = (name: string, sideways: boolean) => {
    const size = PAPER_SIZES.find((each) => each.name === name);
    const [short, long] = size ? [size.width, size.height] : [Math.min(width, height), Math.max(width, height)];
    onChoose(sideways ? [long, short] : [short, long]);
  };
  return (
    <section>
      <h2 className="mb-1.5 text-xs text-quiet">Paper</h2>
      <div className="flex gap-2">
        <select
          aria-label="Paper size"
          className="h-8 min-w-0 flex-1 border border-rule bg-raised px-1"
          value={near?.name ?? ''}
          onChange={(event) => set(event.target.value, landscape)}
        >
          <option value="">
            {Math.round((width / 72) * 25.4)} × {Math.round((height / 72) * 25.4)} mm
          </option>
          {PAPER_SIZES.map(({ name }) => (
            <option key={name}>{name}</option>
          ))}
        </select>
        <Button onClick={() => set(near?.name ?? '', !landscape)}>{landscape ? 'Landscape' : 'Portrait'}</Button>
      </div>
    </section>
  );
}

function draftOf(page: Page): Draft {
  return { recipe: page.recipe ?? wholeRecipe(page), turn: page.turn };
}

/** The whole picture as it is; its size is that of the page, unless the page is a part of it. */
function wholeRecipe(page: Page): Recipe {
  const sideways = page.turn % 180 !== 0;
  const [width, height] = sideways ? [page.pointHeight, page.pointWidth] : [page.pointWidth, page.pointHeight];
  return { corners: null, angle: 0, look: 'asShot', paper: [width, height], marks: [] };
}
