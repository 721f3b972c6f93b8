// Reads single lines of text with the recogniser's library, one after the other, so that its models are loaded only once.
//
// usage: line-reader LANGUAGE
// in:    for each line its width and height (two unsigned 32-bit numbers, little-endian), then its pixels: a byte each, rows
//        from the top, 0 for black
// out:   for each line its characters, a line of text each: whether a word begins (1 or 0), left, top, right, bottom in pixels,
//        how sure the character is, how sure the word is (0 to 100), the character in UTF-8; then an empty line
#include <tesseract/baseapi.h>
#include <tesseract/resultiterator.h>

#include <cstdint>
#include <cstdio>
#include <memory>
#include <string>
#include <vector>

namespace {

constexpr uint32_t kMostPixels = 200u * 1000u * 1000u;
constexpr int kResolution = 300;

struct Line {
  int width, height;
  const unsigned char *pixels;
};

// Reads a line of text found by the library (or the picture just as it is, if raw).
std::string Characters(tesseract::TessBaseAPI &api, const Line &line, bool raw) {
  api.SetPageSegMode(raw ? tesseract::PSM_RAW_LINE : tesseract::PSM_SINGLE_LINE);
  api.SetImage(line.pixels, line.width, line.height, 1, line.width);
  api.SetSourceResolution(kResolution);
  std::string out;
  if (api.Recognize(nullptr) != 0) return out;
  std::unique_ptr<tesseract::ResultIterator> at(api.GetIterator());
  if (!at) return out;
  do {
    std::unique_ptr<char[]> text(at->GetUTF8Text(tesseract::RIL_SYMBOL));
    int left, top, right, bottom;
    if (!text || !at->BoundingBox(tesseract::RIL_SYMBOL, &left, &top, &right, &bottom)) continue;
    char place[128];
    std::snprintf(place, sizeof place, "%d %d %d %d %d %.3f %.3f ", at->IsAtBeginningOf(tesseract::RIL_WORD) ? 1 : 0, left,
                  top, right, bottom, at->Confidence(tesseract::RIL_SYMBOL), at->Confidence(tesseract::RIL_WORD));
    out += place;
    out += text.get();
    out += '\n';
  } while (at->Next(tesseract::RIL_SYMBOL));
  return out;
}

}  // namespace

int main(int count, char **arguments) {
  if (count != 2) return 64;
  tesseract::TessBaseAPI api;
  if (api.Init(nullptr, arguments[1], tesseract::OEM_LSTM_ONLY) != 0) return 3;
  api.SetVariable("tessedit_do_invert", "0");
  uint32_t size[2];
  std::vector<unsigned char> pixels;
  while (std::fread(size, sizeof size[0], 2, stdin) == 2) {
    const uint64_t needed = uint64_t{size[0]} * size[1];
    if (needed == 0 || needed > kMostPixels) return 65;
    pixels.resize(needed);
    if (std::fread(pixels.data(), 1, needed, stdin) != needed) return 65;
    const Line line{static_cast<int>(size[0]), static_cast<int>(size[1]), pixels.data()};
    std::string out = Characters(api, line, false);
    // Short words of upright strokes (“Bill”) are sometimes taken for no text at all.
    if (out.empty()) out = Characters(api, line, true);
    out += '\n';
    api.Clear();
    if (std::fwrite(out.data(), 1, out.size(), stdout) != out.size()) return 74;
    std::fflush(stdout);
  }
  return 0;
}
