// True size: the SVG read back with Qt's own reader, the PDF rendered with poppler's pdftoppm and measured in its
// pixels.
#define CATCH_CONFIG_EXTERNAL_INTERFACES
#include <QFile>
#include <QGuiApplication>
#include <QImage>
#include <QImageReader>
#include <QProcess>
#include <QRegularExpression>
#include <QSvgRenderer>
#include <QTemporaryDir>
#include <catch2/catch.hpp>
#include <cmath>

#include "io/svg.h"
#include "render/print_plan.h"
#include "render/theme.h"
#include "tests/support/bodies.h"
#include "tests/support/qt_application.h"

using namespace armure;
using namespace armure::testing;

namespace {

struct Application : QtApplication<QGuiApplication> {
  using QtApplication::QtApplication;
  void prepare() override {
    QImageReader::setAllocationLimit(0);  // a full-size sheet at 600 dpi is large
    if (!loadFonts()) throw std::runtime_error("the built-in font cannot be read");
  }
};
CATCH_REGISTER_LISTENER(Application)

Order reducedOrder() {
  Order o = plainOrder();
  o.choices["reduction.waist"] = "2 in";
  o.measures.erase("high_hip");
  return o;
}

std::string run(const QString& program, const QStringList& arguments) {
  QProcess p;
  p.start(program, arguments);
  REQUIRE(p.waitForFinished(120000));
  REQUIRE(p.exitCode() == 0);
  return p.readAllStandardOutput().toStdString();
}

constexpr double kDpi = 600;
double pixels(double mm) { return mm / 25.4 * kDpi; }

// The page, or the part of it within a box (mm), whose corner is then where the picture begins.
QImage renderPage(const QString& pdf, int page, const QTemporaryDir& folder, const Box& part = {}) {
  const QString base = folder.filePath("page");
  QStringList arguments{"-r", QString::number(kDpi), "-gray", "-png", "-singlefile", "-f", QString::number(page),
                        "-l", QString::number(page)};
  if (part.width() > 0)
    for (const auto& [option, mm] :
         {std::pair("-x", part.low.x), {"-y", part.low.y}, {"-W", part.width()}, {"-H", part.height()}})
      arguments << option << QString::number(std::lround(pixels(mm)));
  run("pdftoppm", arguments << pdf << base);
  QImage image(base + ".png");
  REQUIRE_FALSE(image.isNull());
  return image.convertToFormat(QImage::Format_Grayscale8);
}

bool dark(const QImage& image, int x, int y) { return image.valid(x, y) && qGray(image.pixel(x, y)) < 128; }

// Middle of the first dark run along a row (or column) between two pixels.
double darkRun(const QImage& image, bool alongX, int fixed, double from, double to) {
  double first = -1, last = -1;
  const int step = to > from ? 1 : -1;
  for (int i = static_cast<int>(from); i != static_cast<int>(to); i += step) {
    const bool d = alongX ? dark(image, i, fixed) : dark(image, fixed, i);
    if (d && first < 0) first = i;
    if (d) last = i;
    if (!d && first >= 0) break;
  }
  REQUIRE(first >= 0);
  return (first + last) / 2;
}

// Side of the printed square as measured in the picture, mm, across and down.
std::pair<double, double> measured(const QImage& image, const Box& square) {
  const int row = static_cast<int>(pixels(square.low.y + 0.7 * square.height())),
            column = static_cast<int>(pixels(square.low.x + 0.7 * square.width()));
  const double slack = pixels(3);
  const auto at = [&](bool alongX, int fixed, double mm) {
    return darkRun(image, alongX, fixed, pixels(mm) - slack, pixels(mm) + slack);
  };
  return {(at(true, row, square.high.x) - at(true, row, square.low.x)) / kDpi * 25.4,
          (at(false, column, square.high.y) - at(false, column, square.low.y)) / kDpi * 25.4};
}

}  // namespace

TEST_CASE("the test squares of the rendered PDF measure 100 mm and 4 in to 0.2 mm, on every paper") {
  const Order o = reducedOrder();
  const Design d = *recalc(o);
  for (const std::string paper : {"a4", "letter", "full", "roll"}) {
    const QTemporaryDir folder;
    const QString pdf = folder.filePath("p.pdf");
    const PrintPlan plan(o, d, {.paper = paper});
    REQUIRE_FALSE(writePdf(pdf.toStdString(), plan, o.title));
    INFO(paper);
    // Of a sheet as large as the pattern only the squares and what is round them.
    const Box millimetres = plan.testSquare(), inches = plan.testSquareInch();
    const Vec2 low = millimetres.low - Vec2{8, 8},
               high = Vec2{8, 8} +
                      Vec2{std::max(millimetres.high.x, inches.high.x), std::max(millimetres.high.y, inches.high.y)};
    const QImage image = renderPage(pdf, 1, folder, {low, high});
    const auto within = [&](const Box& b) { return Box{b.low - low, b.high - low}; };
    const auto [w, h] = measured(image, within(millimetres));
    CHECK(w == Approx(100).margin(0.2));
    CHECK(h == Approx(100).margin(0.2));
    const auto [wi, hi] = measured(image, within(inches));
    CHECK(wi == Approx(101.6).margin(0.2));
    CHECK(hi == Approx(101.6).margin(0.2));
  }
}

TEST_CASE("page sizes are those of the standards, one page a tile and a cover") {
  // ISO 216: A4 is 210 x 297 mm; ANSI letter is 8 1/2 x 11 in. PDF pages are whole points (1/72 in).
  const Order o = plainOrder();
  const Design d = *recalc(o);
  for (const auto& [paper, width, height] : {std::tuple{"a4", 210.0, 297.0}, {"letter", 215.9, 279.4}}) {
    const QTemporaryDir folder;
    const QString pdf = folder.filePath("p.pdf");
    const PrintPlan plan(o, d, {.paper = paper});
    REQUIRE_FALSE(writePdf(pdf.toStdString(), plan, o.title));
    const QString info = QString::fromStdString(run("pdfinfo", {pdf}));
    const auto size = QRegularExpression("Page size:\\s+([0-9.]+) x ([0-9.]+) pts").match(info);
    REQUIRE(size.hasMatch());
    CHECK(size.captured(1).toDouble() * 25.4 / 72 == Approx(width).margin(0.36));
    CHECK(size.captured(2).toDouble() * 25.4 / 72 == Approx(height).margin(0.36));
    CHECK(info.contains(QRegularExpression(QString("Pages:\\s+%1\\n").arg(plan.pages()))));
    CHECK(plan.pages() > 4);
  }
}

TEST_CASE("neighbouring tiles print the same registration crosses") {
  const Order o = plainOrder();
  const Design d = *recalc(o);
  const QTemporaryDir folder;
  const QString pdf = folder.filePath("p.pdf");
  const PrintPlan plan(o, d, {.paper = "a4"});
  REQUIRE_FALSE(writePdf(pdf.toStdString(), plan, o.title));
  const QImage first = renderPage(pdf, 2, folder), second = renderPage(pdf, 3, folder);
  // In the middle of the shared strip of 10 mm: 5 mm inside the right margin of A1, 5 mm inside the left margin of A2.
  const double half = kTileOverlap / 2, stepY = 297 - 2 * kTileMargin - kTileOverlap;
  for (double y : {half, half + stepY / 2, half + stepY}) {
    const int py = static_cast<int>(pixels(kTileMargin + y));
    const auto cross = [&](const QImage& image, double x) {
      int count = 0;
      for (double dx = -3; dx <= 3; dx += 0.5)
        for (int dy = -2; dy <= 2; ++dy) count += dark(image, static_cast<int>(pixels(x + dx)), py + dy);
      return count;
    };
    CHECK(cross(first, 210 - kTileMargin - half) > 10);
    CHECK(cross(second, kTileMargin + half) > 10);
  }
}

TEST_CASE("the cover prints the cautions of a reduction, what is estimated, and what the sheet found") {
  const Order o = reducedOrder();
  const Design d = *recalc(o);
  for (const std::string paper : {"a4", "letter", "full"}) {
    const QTemporaryDir folder;
    const QString pdf = folder.filePath("p.pdf");
    REQUIRE_FALSE(writePdf(pdf.toStdString(), PrintPlan(o, d, {.paper = paper}), o.title));
    QString text = QString::fromStdString(run("pdftotext", {"-f", "1", "-l", "1", pdf, "-"})).simplified();
    INFO(text.toStdString());
    for (const char* wanted : {"7.1 % less, firm", "no medical advice", "pregnancy", "open it fast", "Loosen at once",
                               "Estimated, not taken", "high hip", "Balance sheet", "100 mm", "4 in", "Plain bodice"})
      CHECK(text.contains(wanted));
  }
  Order plain = plainOrder();
  const Design unreduced = *recalc(plain);
  const QTemporaryDir folder;
  const QString pdf = folder.filePath("p.pdf");
  REQUIRE_FALSE(writePdf(pdf.toStdString(), PrintPlan(plain, unreduced, {.paper = "a4"}), plain.title));
  CHECK_FALSE(QString::fromStdString(run("pdftotext", {"-f", "1", "-l", "1", pdf, "-"})).contains("pregnancy"));
}

TEST_CASE("a PDF has its kinds of lines as layers, and asks to be printed at its own size") {
  // Optional content and viewer preferences: ISO 32000-1, 8.11 and 12.2. Read back by poppler and by eye of the bytes.
  const Order o = plainOrder();
  const QTemporaryDir folder;
  const QString pdf = folder.filePath("p.pdf");
  const Design d = *recalc(o);
  const PrintPlan plan(o, d, {.paper = "a3"});
  REQUIRE_FALSE(writePdf(pdf.toStdString(), plan, o.title));
  QFile file(pdf);
  REQUIRE(file.open(QIODevice::ReadOnly));
  const QByteArray bytes = file.readAll();
  CHECK(bytes.contains("/PrintScaling /None"));
  for (const PrintLayerInfo& layer : kPrintLayers)
    CHECK(bytes.contains("/Name (" + QByteArray(layer.name.data(), static_cast<qsizetype>(layer.name.size())) + ")"));
  const QString text = QString::fromStdString(run("pdftotext", {"-f", "2", pdf, "-"}));
  CHECK(text.contains("Centre front"));
  // Some pieces alone.
  const PrintPlan one(o, d, {.paper = "a3", .pieces = {1}});
  CHECK(one.pages() < plan.pages());
}

TEST_CASE("a roll is as wide as is said, and carries the words beside the squares or below them") {
  const Order o = reducedOrder();
  const Design d = *recalc(o);
  for (const double roll : {610.0, 914.4, 420.0}) {
    INFO(roll);
    const QTemporaryDir folder;
    const QString pdf = folder.filePath("p.pdf");
    const PrintPlan plan(o, d, {.paper = "roll", .roll = roll});
    CHECK(plan.pageWidth() == Approx(roll));
    REQUIRE(plan.pages() == 1);
    CHECK(plan.testSquareInch().high.x < roll);
    CHECK(plan.testSquareInch().high.y < plan.pageHeight());
    REQUIRE_FALSE(writePdf(pdf.toStdString(), plan, o.title));
    const QString text = QString::fromStdString(run("pdftotext", {pdf, "-"})).simplified();
    for (const char* wanted :
         {"Plain bodice", "no medical advice", "Estimated, not taken", "Balance sheet", "Centre front"})
      CHECK(text.contains(wanted));
  }
  // Narrower than a piece: divided, with a cover.
  const PrintPlan narrow(o, d, {.paper = "roll", .roll = 150});
  CHECK(narrow.pages() > 2);
  CHECK(narrow.pageWidth() == Approx(150));
}

TEST_CASE("the SVG is at true size by its own viewBox") {
  const Order o = plainOrder();
  const Design d = *recalc(o);
  const QByteArray svg = QByteArray::fromStdString(patternSvg(o, d));
  QSvgRenderer reader(svg);
  REQUIRE(reader.isValid());
  const auto size =
      QRegularExpression("width=\"([0-9.]+)mm\" height=\"([0-9.]+)mm\" viewBox=\"0 0 ([0-9.]+) ([0-9.]+)\"")
          .match(QString::fromUtf8(svg));
  REQUIRE(size.hasMatch());
  CHECK(size.captured(1) == size.captured(3));  // one user unit is one millimetre
  CHECK(size.captured(2) == size.captured(4));
  CHECK(reader.viewBoxF().width() == Approx(size.captured(3).toDouble()));
  // The fold of the centre front, as Qt reads it, is as long as the piece's.
  const double fold = d.pattern.pieces[0].edge("fold").path.length();
  constexpr double kStroke = 0.3;  // counts in Qt's bounds
  CHECK(reader.boundsOnElement("front-1.fold").height() - kStroke == Approx(fold).margin(0.01));
  for (const char* layer : {"cut", "sewn", "fold", "levels", "notches", "grain", "labels", "test-squares"})
    CHECK(reader.elementExists(layer));
}

TEST_CASE("a sheet that no line crosses says of which piece it is the inside") {
  Order order = plainOrder();
  order.choices["flounce.1.on"] = "hem";
  order.choices["flounce.1.turns"] = "0.3";
  order.choices["flounce.1.long"] = checkChoice("flounce.1.long", "40", Unit::Inch).value();
  const Design design = recalc(order).value();
  const Sheets sheets = layOnSheets(design.pattern, design.cutOutlines, {.paper = "a4"});
  int inside = 0;
  for (const Tile& t : sheets.tiling.tiles) {
    const Polyline ring = ringOf(t.area);
    for (const Polyline& outline : sheets.layout.outlines)
      inside += sharedArea(outline, ring) > std::abs(signedArea(ring)) - 1;
  }
  REQUIRE(inside > 0);  // a train as wide as two sheets
  const QTemporaryDir folder;
  const QString pdf = folder.filePath("train.pdf");
  REQUIRE_FALSE(writePdf(pdf.toStdString(), PrintPlan(order, design, {.paper = "a4"}), "train"));
  const QString text = QString::fromStdString(run("pdftotext", {pdf, "-"}));
  CHECK(text.count("it is the inside of") == inside);
  CHECK(text.contains("Flounce 1."));
}
