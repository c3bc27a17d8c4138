#include "io/cloth_svg.h"

#include <fmt/format.h>

#include "io/document_html.h"
#include "io/svg_text.h"
#include "prepare/label_place.h"
#include "prepare/marks.h"
#include "units/language.h"

namespace armure {
namespace {

constexpr double kMargin = 15, kHead = 14, kBetween = 20, kLabel = 16;  // mm

std::string polygon(std::string_view style, const Polyline& ring) {
  std::string points;
  for (const Vec2 p : ring) points += (points.empty() ? "" : " ") + svgNumber(p.x) + "," + svgNumber(p.y);
  return fmt::format("<polygon {}points=\"{}\"/>\n", style, points);
}

class ClothDrawing {
 public:
  ClothDrawing(const Pattern& pattern, const CutList& list, LengthFormat units)
      : pattern_(pattern), list_(list), units_(units) {}

  // The group of a cloth whose upper left corner lies there.
  std::string draw(const OnCloth& c, double top) const {
    const ClothLaying& laying = c.laying;
    std::string out = fmt::format("<g id=\"{}\" transform=\"translate({} {})\">\n<title>{}</title>\n",
                                  laying.cloth.cloth, svgNumber(kMargin), svgNumber(top), escapedXml(head(c)));
    out += fmt::format("<text x=\"0\" y=\"-4\" font-size=\"9\" stroke=\"none\" fill=\"#23272D\">{}</text>\n",
                       escapedXml(head(c)));
    if (laying.unfit) return out + "</g>\n";
    const double length = c.layout.length, width = laying.width;
    out += polygon("fill=\"#FCFAF4\" stroke=\"#6E675B\" ",
                   laying.problem.within.empty() ? Polyline{{0, 0}, {length, 0}, {length, width}, {0, width}}
                                                 : laying.problem.within);
    if (laying.folded)
      out += fmt::format("<path d=\"M0 {0} H{1}\" stroke-dasharray=\"10 2 2 2\"/>\n", svgNumber(width / 2),
                         svgNumber(length));
    for (const ClothPlacement& p : laying.placements(c.layout)) out += copy(laying, p);
    return out + "</g>\n";
  }

 private:
  std::string head(const OnCloth& c) const {
    const ClothLaying& laying = c.laying;
    if (laying.unfit) return say(clothName(laying.cloth.as), units_) + ": " + laying.unfit->text();
    return fmt::format("{}: {} of {} wide, {}; {:.1f} % of it is cut", say(clothName(laying.cloth.as), units_),
                       formatLengthWithUnit(laying.needed(c.layout), units_),
                       formatLengthWithUnit(laying.width, units_), laying.folded ? "folded" : "open",
                       100 * laying.utilisation(c.layout));
  }

  std::string copy(const ClothLaying& laying, const ClothPlacement& p) const {
    const CutPiece& cut = list_.pieces[p.piece];
    const Piece& piece = pattern_.pieces[cut.piece];
    const Motion motion = p.motion();
    Polyline outline;
    for (const Vec2 v : laying.outlines[p.piece]) outline.push_back(motion.apply(v));
    const Vec2 top = motion.apply(piece.grainTop), bottom = motion.apply(piece.grainBottom);
    const Vec2 back = 6 * unit(bottom - top), aside{-back.y / 3, back.x / 3};
    const std::string name = say(cut.name, units_);
    const LabelPlace place = labelPlace(outline, {}, 0.56 * kLabel * static_cast<double>(name.size()), 2 * kLabel);
    return fmt::format(
        "<g id=\"{0}.{1}.{2}\">\n<title>{3}, {2}</title>\n{4}<path d=\"M{5} L{6} M{7} L{5} L{8}\"/>\n"
        "<text x=\"{9}\" y=\"{10}\" font-size=\"{11}\" text-anchor=\"middle\" stroke=\"none\" "
        "fill=\"#23272D\"{12}>{3}{13}</text>\n</g>\n",
        laying.cloth.cloth, cut.id, p.copy, escapedXml(name), polygon("fill=\"#E8D9BC\" ", outline), svgPoint(top),
        svgPoint(bottom), svgPoint(top + back + aside), svgPoint(top + back - aside), svgNumber(place.middle.x),
        svgNumber(place.middle.y), svgNumber(kLabel * place.scale),
        place.turned
            ? fmt::format(" transform=\"rotate(90 {} {})\"", svgNumber(place.middle.x), svgNumber(place.middle.y))
            : "",
        p.turn.mirrored ? ", mirrored" : "");
  }

  const Pattern& pattern_;
  const CutList& list_;
  LengthFormat units_;
};

}  // namespace

std::string clothSvg(const Pattern& pattern, const CutList& list, const std::vector<OnCloth>& cloths,
                     LengthFormat units) {
  const ClothDrawing drawing(pattern, list, units);
  std::string groups;
  double top = kMargin + kHead, length = 0;
  for (const OnCloth& c : cloths) {
    groups += drawing.draw(c, top);
    length = std::max(length, c.layout.length);
    top += (c.laying.unfit ? 0 : c.laying.width) + kHead + kBetween;
  }
  return fmt::format(
             "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{0}mm\" "
             "height=\"{1}mm\" viewBox=\"0 0 {0} {1}\" font-family=\"Lato, sans-serif\" fill=\"none\" "
             "stroke=\"#23272D\" stroke-width=\"0.5\">\n",
             svgNumber(length + 2 * kMargin), svgNumber(top)) +
         groups + "</svg>\n";
}

}  // namespace armure
