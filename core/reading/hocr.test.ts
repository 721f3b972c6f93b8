import { parseHocr } from './hocr';

const HOCR = `
<div class='ocr_page' id='page_1'>
 <span class='ocr_line' id='line_1_1' title="bbox 100 50 400 90; baseline 0.01 -10; x_size 38">
  <span class='ocrx_word' id='word_1_1' title='bbox 100 52 200 88; x_wconf 96'>Halden</span>
  <span class='ocrx_word' id='word_1_2' title='bbox 220 52 250 88; x_wconf 41'>&amp;</span>
  <span class='ocrx_word' id='word_1_3' title='bbox 260 52 280 88; x_wconf 95'> </span>
 </span>
 <span class='ocr_header' id='line_1_2' title="bbox 100 150 400 190; baseline 0 -8">
  <span class='ocrx_word' id='word_1_4' title='bbox 100 150 300 190; x_wconf 90'><strong>D&#39;œuvre</strong></span>
 </span>
</div>`;

describe('reading hOCR', () => {
  const words = parseHocr(HOCR);

  it('gives each word its text, box, confidence and line, and leaves empty ones out', () => {
    expect(words.map(({ text, box, confidence, line }) => ({ text, box, confidence, line }))).toEqual([
      { text: 'Halden', box: [100, 52, 100, 36], confidence: 0.96, line: 0 },
      { text: '&', box: [220, 52, 30, 36], confidence: 0.41, line: 0 },
      { text: "D'œuvre", box: [100, 150, 200, 40], confidence: 0.9, line: 1 },
    ]);
  });

  it('follows a sloping baseline along the line', () => {
    // Ten pixels above the line's foot at its left end, and a hundredth lower for each pixel to the right.
    expect(words[0].baseline).toBeCloseTo(90 - 10 + 0.5);
    expect(words[1].baseline).toBeCloseTo(90 - 10 + 1.35);
  });

  it('finds nothing in a page without words', () => {
    expect(parseHocr("<div class='ocr_page'></div>")).toEqual([]);
  });
});
