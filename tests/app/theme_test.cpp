// Colours that can be read, and the smaller dealings of the session and the table.
#include <QFontMetrics>
#include <QTemporaryDir>
#include <catch2/catch.hpp>
#include <cmath>

#include "app/style_sheet.h"
#include "app/table_scene.h"
#include "io/atomic_file.h"
#include "prepare/arrange.h"
#include "prepare/paper.h"
#include "render/theme.h"
#include "tests/support/bodies.h"

using namespace armure;
using namespace armure::testing;

namespace {

// Contrast of two colours: W3C, Web Content Accessibility Guidelines (WCAG) 2.1, "relative luminance" and "contrast
// ratio".
double contrast(const QColor& a, const QColor& b) {
  const auto luminance = [](const QColor& c) {
    const auto part = [](double v) { return v <= 0.03928 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); };
    return 0.2126 * part(c.redF()) + 0.7152 * part(c.greenF()) + 0.0722 * part(c.blueF());
  };
  const double x = luminance(a) + 0.05, y = luminance(b) + 0.05;
  return x > y ? x / y : y / x;
}

Order withTitle(const char* title) {
  Order o = plainOrder();
  o.title = title;
  return o;
}

}  // namespace

TEST_CASE("text stands out from its ground by 4.5 to 1, light and dark") {
  // WCAG 2.1, success criterion 1.4.3: 4.5 : 1 for text of this size. The formula, checked on its own example first.
  REQUIRE(contrast(Qt::white, Qt::black) == Approx(21).margin(0.01));
  for (const Theme* t : {&lightTheme(), &darkTheme()}) {
    for (const QColor& ground : {t->panel, t->panelLight, t->paper}) {
      CHECK(contrast(t->ink, ground) >= 7);
      CHECK(contrast(t->secondInk, ground) >= 4.5);
      CHECK(contrast(t->working, ground) >= 4.5);
      CHECK(contrast(t->attention, ground) >= 4.5);
    }
    CHECK(contrast(t->ink, t->tape) >= 4.5);
    CHECK(contrast(t->onWorking, t->working) >= 4.5);
    CHECK(contrast(t->attention, t->attentionGround) >= 4.5);
    CHECK(contrast(t->ink, t->attentionGround) >= 7);
    CHECK(contrast(t->ink, t->tint) >= 7);
    CHECK(contrast(t->ink, t->tintDeep) >= 7);
  }
}

TEST_CASE("the style sheet names every colour by its value") {
  for (const Theme* t : {&lightTheme(), &darkTheme()}) {
    const QString css = themeStyleSheet(*t);
    CHECK_FALSE(css.contains('@'));
    CHECK(css.contains(t->panelLight.name()));
    CHECK(css.contains(t->attentionGround.name()));
  }
}

TEST_CASE("the built-in font has the fractions and signs the program uses") {
  const QFontMetrics metrics(uiFont());
  for (char32_t c : U"⅛½¼¾×±−·…°✓○") {
    if (c == 0 || c == U'✓' || c == U'○') continue;  // those two may come from another font
    INFO(static_cast<unsigned>(c));
    CHECK(metrics.inFontUcs4(c));
  }
}

TEST_CASE("measures are read into the order as one step; a bad list changes nothing") {
  const QTemporaryDir folder;
  const auto file = [&](const char* name, const std::string& text) {
    const std::string path = folder.filePath(name).toStdString();
    REQUIRE_FALSE(writeFileAtomically(path, text));
    return path;
  };
  OrderSession s;
  const Order start = s.order();
  const std::string good = file(
      "good.csv", "measure,value,unit,note\nclient,Ada,,\nbust,92,cm,\nwaist,70,cm,\nhip,98,cm,\nelbow_dimple,3,cm,\n");
  REQUIRE_FALSE(s.importMeasures(good));
  CHECK(s.order().client == "Ada");
  CHECK(s.order().units.unit == Unit::Centimetre);
  CHECK(s.design() != nullptr);
  CHECK(s.warnings().size() == 1);
  s.dismissWarnings();
  CHECK(s.warnings().empty());
  const Order before = s.order();
  const auto problem = s.importMeasures(file("bad.csv", "measure,value,unit,note\nbust,92,,\n"));
  REQUIRE(problem);
  CHECK(english(problem->where).find("line 2") != std::string::npos);
  CHECK(s.order() == before);
  s.undo();
  CHECK(s.order() == start);
}

TEST_CASE("an order with a style of a later version opens, warns, and keeps the name") {
  const QTemporaryDir folder;
  const std::string path = folder.filePath("later.armure").toStdString();
  Order later = withTitle("Later");
  later.style = "plunge-12";
  REQUIRE_FALSE(writeOrder(path, {later, "", {}}));
  OrderSession s;
  REQUIRE_FALSE(s.open(path));
  CHECK(s.warnings().size() == 1);
  CHECK(s.design() != nullptr);
  REQUIRE_FALSE(s.save(path).problem);
  CHECK(readText(path).find("plunge-12") != std::string::npos);
}

TEST_CASE("the sheets of paper are framed on the table as they will be printed") {
  const Design d = *recalc(withTitle("Paper"));
  const auto frames = [&](const std::string& paper) {
    const Sheets sheets = layOnSheets(d.pattern, d.cutOutlines, {.paper = paper});
    const TableScene scene = makeScene(d, TableMode::Apart, {.sheets = &sheets});
    for (size_t i = 0; i < scene.arrangement.size(); ++i)
      CHECK(scene.arrangement[i].apply({}) == sheets.layout.motions[i].apply({}));
    return std::pair(static_cast<size_t>(std::ranges::count(scene.items, Ink::PageFrame, &SceneItem::mark)),
                     sheets.tiling.tiles.size());
  };
  for (const char* paper : {"a4", "letter", "roll"}) CHECK(frames(paper).first == frames(paper).second);
  CHECK(frames("full").first == 0);
}

TEST_CASE("a spot of a piece is found on the table wherever the piece lies") {
  const Design d = *recalc(withTitle("Spots"));
  for (TableMode mode : {TableMode::Apart, TableMode::Taped}) {
    const TableScene scene = makeScene(d, mode);
    REQUIRE(scene.arrangement.size() == d.pattern.pieces.size());
    for (const CheckRow& r : d.sheet.rows) {
      if (r.piece.empty()) continue;
      INFO(r.subject);
      CHECK(scene.bounds.contains(scene.place(d, r.piece, r.spot)));
    }
  }
}
