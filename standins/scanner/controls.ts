import { FastifyInstance } from 'fastify';
import { BATCH, FILED } from '@crow/demo/papers';
import { sheetFromPicture, sheetsOf, slipsOnGlass } from './load';
import { LoadedSheet, Machine } from './machine';
import { MODEL } from './words';

/** The first of several slips that have room beside each other on the glass, laid there without much care. */
function beside(sheets: LoadedSheet[]): Promise<LoadedSheet> {
  const laid = sheets.slice(0, 2).map(({ front }, at) => ({
    slip: front,
    x: 30 + 290 * at,
    y: 40 + 14 * at,
    degrees: at === 0 ? 2.5 : -1.6,
  }));
  return slipsOnGlass('two receipts', laid);
}

/** The small page on which papers are put into the scanner, and taken out, and things go wrong. */
export function controlPage(app: FastifyInstance, machine: Machine): void {
  app.addContentTypeParser('application/octet-stream', { parseAs: 'buffer' }, (_request, body, done) =>
    done(null, body),
  );
  app.get('/', async (_request, reply) => reply.type('text/html; charset=utf-8').send(PAGE));
  app.get('/state', async () => ({
    feeder: machine.feeder.map(({ name }) => name),
    glass: machine.glass?.name ?? null,
    trouble: machine.trouble,
    jamsAfter: machine.jamsAfter ?? null,
    papers: BATCH.map(({ id, who }) => ({ id, who })),
  }));
  app.post<{ Params: { place: string }; Querystring: { paper?: string; both?: string; name?: string }; Body: unknown }>(
    '/load/:place',
    async (request, reply) => {
      const { place } = request.params;
      const { paper: id, both, name = 'a picture' } = request.query;
      const papers =
        id === 'receipt'
          ? FILED.filter(({ kind }) => kind === 'receipt')
          : BATCH.filter((each) => id === 'all' || each.id === id);
      try {
        const sheets = Buffer.isBuffer(request.body)
          ? [await sheetFromPicture(name, request.body)]
          : (await Promise.all(papers.map((paper) => sheetsOf(paper, { bothSides: both === 'yes' })))).flat();
        if (place === 'feeder') machine.feeder.push(...sheets);
        else machine.glass = sheets.length > 1 ? await beside(sheets) : (sheets[0] ?? null);
        return await reply.code(204).send();
      } catch {
        return reply.code(400).send({ message: 'That is no picture.' });
      }
    },
  );
  app.post<{ Params: { what: string } }>('/do/:what', async (request, reply) => {
    const { what } = request.params;
    if (what === 'empty') machine.feeder.length = 0;
    else if (what === 'clean') machine.glass = null;
    else if (what === 'jam') machine.jamsAfter = 1;
    else if (what === 'open') machine.trouble = 'coverOpen';
    else if (what === 'clear') machine.clear();
    else return reply.code(404).send();
    return reply.code(204).send();
  });
}

const PAGE = `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>${MODEL}</title>
<style>
body{font:15px/1.5 system-ui,sans-serif;background:#e8e4da;color:#1f1d26;margin:0;padding:24px;max-width:760px}
h1{font-size:20px;margin:0 0 4px}section{border-top:1px solid #b9b3a4;padding:12px 0}h2{font-size:15px;margin:0 0 8px}
button,select{font:inherit;background:#fbfaf6;border:1px solid #b9b3a4;padding:4px 10px;margin:0 6px 6px 0}
ol{margin:0 0 8px;padding-left:24px}.wrong{color:#a3333d;font-weight:600}
@media(prefers-color-scheme:dark){body{background:#24222b;color:#efebe2}button,select{background:#322f3a;color:inherit}}
</style>
<h1>${MODEL}</h1><p>A scanner that isn’t there: put papers in, and scan them from Crow Shelf.</p>
<p id="trouble" class="wrong" role="status"></p>
<section><h2>Feeder</h2><ol id="feeder"></ol>
<select id="paper" aria-label="Paper"></select>
<button data-load="feeder">Put it in</button><button data-all>Put the whole post in</button><button data-both>Put it in, printed on both sides</button>
<button data-file="feeder">A picture of your own …</button><button data-do="empty">Take everything out</button></section>
<section><h2>Glass</h2><p id="glass"></p><button data-load="glass">Lay it on</button><button data-slips>Two receipts beside each other</button><button data-file="glass">A picture of your own …</button><button data-do="clean">Take it off</button></section>
<section><h2>What goes wrong</h2><button data-do="jam">Jam at the sheet after the next</button><button data-do="open">Open the cover</button><button data-do="clear">Put it right</button></section>
<script>
const $=(s)=>document.querySelector(s);
const post=(path,body)=>fetch(path,{method:'POST',body,headers:body?{'content-type':'application/octet-stream'}:{}}).then(show);
async function show(){const s=await(await fetch('/state')).json();
if(!$('#paper').children.length)$('#paper').append(...s.papers.map(p=>new Option(p.who+' ('+p.id+')',p.id)));
$('#feeder').replaceChildren(...s.feeder.map(n=>{const li=document.createElement('li');li.textContent=n;return li}));
$('#glass').textContent=s.glass?'On it: '+s.glass:'Nothing on it.';
$('#trouble').textContent=s.trouble==='jam'?'A sheet is jammed.':s.trouble==='coverOpen'?'The cover is open.':s.jamsAfter!==null?'A sheet will jam.':''}
addEventListener('click',(e)=>{const d=e.target.dataset||{};const id=$('#paper').value;
if(d.load)post('/load/'+d.load+'?paper='+id);if('slips' in d)post('/load/glass?paper=receipt');if('all' in d)post('/load/feeder?paper=all');if('both' in d)post('/load/feeder?paper='+id+'&both=yes');if(d.do)post('/do/'+d.do);
if(d.file){const i=document.createElement('input');i.type='file';i.accept='image/*';i.onchange=()=>i.files[0]&&post('/load/'+d.file+'?name='+encodeURIComponent(i.files[0].name),i.files[0]);i.click()}});
show();setInterval(show,1500);
</script></html>`;
