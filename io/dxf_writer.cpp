#include "io/dxf_writer.h"

#include <dxflib/dl_dxf.h>
#include <fmt/format.h>

#include <array>
#include <memory>

#include "geometry/tolerances.h"
#include "io/print_words.h"
#include "prepare/arrange.h"
#include "prepare/drawing.h"
#include "prepare/lists.h"
#include "prepare/marks.h"
#include "units/language.h"

namespace armure {
namespace {

constexpr double kWidest = 880, kTextHeight = 5;  // mm

// The layers of ASTM D6673, from memory, and a colour of the palette (the format's colour numbers) for each.
namespace layer {
constexpr const char *kCut = "1", *kNotch = "4", *kMirror = "6", *kGrain = "7", *kInner = "8", *kDrill = "13",
                     *kSewn = "14", *kText = "15";
}
constexpr std::array<std::pair<const char*, int>, 8> kLayers{{{layer::kCut, 7},
                                                              {layer::kNotch, 1},
                                                              {layer::kMirror, 6},
                                                              {layer::kGrain, 3},
                                                              {layer::kInner, 8},
                                                              {layer::kDrill, 2},
                                                              {layer::kSewn, 5},
                                                              {layer::kText, 4}}};

const char* layerOf(LineRole role) {
  switch (role) {
    case LineRole::Cut:
      return layer::kCut;
    case LineRole::Sewn:
      return layer::kSewn;
    case LineRole::Fold:
      return layer::kMirror;
    case LineRole::Notch:
      return layer::kNotch;
    case LineRole::Point:
      return layer::kDrill;
    case LineRole::Grain:
      return layer::kGrain;
    case LineRole::Level:
    case LineRole::Channel:
    case LineRole::Eyelet:
      break;
  }
  return layer::kInner;
}

// The library's writer, into memory instead of a file.
class TextWriter : public DL_WriterA {
 public:
  TextWriter() : DL_WriterA("/dev/null", DL_Codes::AC1009) {}
  void dxfReal(int code, double value) const override { text_ += fmt::format("{:3}\n{:.6f}\n", code, value); }
  void dxfInt(int code, int value) const override { text_ += fmt::format("{:3}\n{}\n", code, value); }
  void dxfHex(int code, int value) const override { text_ += fmt::format("{:3}\n{:X}\n", code, value); }
  void dxfString(int code, const char* value) const override { text_ += fmt::format("{:3}\n{}\n", code, value); }
  void dxfString(int code, const std::string& value) const override { dxfString(code, value.c_str()); }
  std::string text() && { return std::move(text_); }

 private:
  mutable std::string text_;  // the library writes through const functions
};

// ASCII: what is beyond it as \U+XXXX, as later releases read it; control characters as blanks.
std::string ascii(const std::string& utf8) {
  std::string out;
  for (size_t i = 0; i < utf8.size();) {
    const auto byte = static_cast<unsigned char>(utf8[i]);
    const size_t bytes = byte < 0x80 ? 1 : byte < 0xE0 ? 2 : byte < 0xF0 ? 3 : 4;
    unsigned code = bytes == 1 ? byte : byte & (0xFFu >> (bytes + 1));
    for (size_t k = 1; k < bytes && i + k < utf8.size(); ++k)
      code = code << 6 | (static_cast<unsigned char>(utf8[i + k]) & 0x3Fu);
    if (bytes == 1)
      out += byte < 0x20 || byte == 0x7F ? ' ' : utf8[i];
    else
      out += code > 0xFFFF ? std::string("?") : fmt::format("\\U+{:04X}", code);
    i += bytes;
  }
  return out;
}

class DxfWriter {
 public:
  DxfWriter(const Order& order, const Design& design, const std::vector<size_t>& pieces)
      : order_(order),
        design_(design),
        boning_(boningOf(design.pattern, design.block, design.rules)),
        orderLines_(orderLines(order, design)),
        list_(pieceList(design.pattern, design.rules)),
        layout_(layOutOnPaper(design.pattern, design.cutOutlines, pieces.empty() ? allPieces(design.pattern) : pieces,
                              kWidest)) {
    // The library keeps its version to itself: this is how it is told.
    const std::unique_ptr<DL_WriterA> told(dxf_.out("/dev/null", DL_Codes::AC1009));
  }

  std::string write() && {
    header();
    tables();
    out_.sectionBlocks();
    for (const size_t i : layout_.pieces) block(i);
    out_.sectionEnd();
    out_.sectionEntities();
    for (size_t k = 0; k < layout_.pieces.size(); ++k) insert(k);
    words();
    out_.sectionEnd();
    out_.dxfEOF();
    return std::move(out_).text();
  }

 private:
  const Piece& piece(size_t i) const { return design_.pattern.pieces[i]; }
  static DL_Attributes on(const char* layer) { return {layer, 256, -1, "BYLAYER", 1.0}; }

  void header() {
    out_.section("HEADER");
    out_.dxfString(9, "$ACADVER");
    out_.dxfString(1, "AC1009");
    out_.dxfString(9, "$INSUNITS");  // millimetres
    out_.dxfInt(70, 4);
    out_.dxfString(9, "$MEASUREMENT");
    out_.dxfInt(70, 1);
    out_.sectionEnd();
  }

  void tables() {
    out_.sectionTables();
    out_.tableLinetypes(1);
    dxf_.writeLinetype(out_, DL_LinetypeData("CONTINUOUS", "", 0, 0, 0.0));
    out_.tableEnd();
    out_.tableLayers(static_cast<int>(kLayers.size()) + 1);
    dxf_.writeLayer(out_, DL_LayerData("0", 0), DL_Attributes("0", 7, -1, "CONTINUOUS", 1.0));
    for (const auto& [name, color] : kLayers)
      dxf_.writeLayer(out_, DL_LayerData(name, 0), DL_Attributes(name, color, -1, "CONTINUOUS", 1.0));
    out_.tableEnd();
    out_.sectionEnd();
  }

  void polyline(const char* layer, const Polyline& points, bool closed) {
    dxf_.writePolyline(out_, DL_PolylineData(static_cast<int>(points.size()), 0, 0, closed ? 1 : 0), on(layer));
    for (const Vec2 p : points) dxf_.writeVertex(out_, DL_VertexData(p.x, -p.y));
    dxf_.writePolylineEnd(out_);
  }

  void text(const char* layer, Vec2 at, const std::string& words, double height = kTextHeight, double angleRad = 0) {
    dxf_.writeText(out_,
                   DL_TextData(at.x, -at.y, 0, at.x, -at.y, 0, height, 1, 0, 0, 0, ascii(words), "STANDARD", -angleRad),
                   on(layer));
  }

  // As it stands on the paper: its grain upright.
  void block(size_t i) {
    const Piece& p = piece(i);
    const Motion m = upright(p);
    dxf_.writeBlock(out_, DL_BlockData(p.id, 0, 0, 0, 0));
    for (const DrawnLine& l : drawnLines(p, design_.cutOutlines[i], design_.rules.option(key::kNotchKind))) line(l, m);
    for (const DrawnLine& l : drawnBoning(boning_, i)) line(l, m);
    for (const NotchStroke& n : strokesToCut(p, design_.cutOutlines[i])) point(layer::kNotch, m.apply(n.cut));
    for (const DartPoint& d : dartPoints(p)) point(layer::kDrill, m.apply(d.at));
    for (const DrawnText& t : drawnTexts({design_.pattern, design_.rules, boning_, orderLines_}, i, m))
      text(layer::kText, t.at, say(t.text, order_.units), t.height, t.angleRad);
    facts(i, m);
    dxf_.writeEndBlock(out_, p.id);
  }

  void line(const DrawnLine& l, const Motion& m) {
    Polyline points;
    for (const Vec2 p : l.role == LineRole::Cut ? l.outline : l.path.flattened(tolerance::kFileFlatness))
      points.push_back(m.apply(p));
    polyline(layerOf(l.role), points, l.role == LineRole::Cut);
  }

  void point(const char* layer, Vec2 p) { dxf_.writePoint(out_, DL_PointData(p.x, -p.y, 0), on(layer)); }

  // What the standard asks for of a piece, for every layer it is cut for.
  void facts(size_t i, const Motion& m) {
    Vec2 at = m.apply(labelPoint(piece(i)));
    const auto fact = [&](const std::string& words) {
      text(layer::kCut, at, words, 2);
      at.y += 3;
    };
    fact("Piece Name: " + piece(i).id);
    for (const CutPiece& c : list_.pieces) {
      if (c.piece != i) continue;
      fact("Material: " + c.cloth);
      fact(c.mirrored ? fmt::format("Quantity: {},{}", c.copies / 2, c.copies - c.copies / 2)
                      : fmt::format("Quantity: {}", c.copies));
      fact("Category: " + c.layer);
    }
  }

  void insert(size_t k) {
    // The block has the piece upright; the layout has it there and shifted.
    const Piece& p = piece(layout_.pieces[k]);
    const Vec2 shift = layout_.motions[k].apply(p.grainTop) - upright(p).apply(p.grainTop);
    dxf_.writeInsert(out_, DL_InsertData(p.id, shift.x, -shift.y, 0, 1, 1, 1, 0, 1, 1, 0, 0), on("0"));
  }

  void words() {
    Vec2 at{0, layout_.height + 20};
    const auto line = [&](const std::string& words) {
      for (const std::string& l : wrappedLines(words, 110)) {
        text(layer::kText, at, l);
        at.y += 1.6 * kTextHeight;
      }
    };
    line("Style Name: " + printTitle(order_));
    line("Author: Armure");
    if (!order_.date.empty()) line("Creation Date: " + order_.date);
    line("Units: METRIC");
    if (const std::string said = printSubtitle(order_); !said.empty()) line(said);
    for (const PrintWords& w : printFacts(order_, design_)) line(w.text);
    for (const PrintWords& w : printCautions(order_, design_)) line(w.text);
  }

  const Order& order_;
  const Design& design_;
  Boning boning_;
  std::vector<Message> orderLines_;
  CutList list_;
  PaperLayout layout_;
  DL_Dxf dxf_;
  TextWriter out_;
};

}  // namespace

std::string patternDxf(const Order& order, const Design& design, const std::vector<size_t>& pieces) {
  return DxfWriter(order, design, pieces).write();
}

}  // namespace armure
