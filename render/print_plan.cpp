#include "render/print_plan.h"

#include <QBuffer>
#include <QPageLayout>
#include <QPageSize>
#include <QPdfWriter>
#include <algorithm>
#include <stdexcept>

#include "io/atomic_file.h"
#include "io/print_words.h"
#include "render/layered_pdf.h"
#include "render/pattern_painter.h"
#include "render/theme.h"
#include "render/words.h"

namespace armure {
namespace {

constexpr double kSheetMargin = 15;  // mm round a full-size sheet
constexpr double kHead = 18;         // mm for title and client
constexpr double kInfoWidth = 150;   // mm of text beside the squares on a full-size sheet
constexpr double kSaidBelow = 90;    // mm of text below them on a narrow roll
constexpr int kDotsPerInch = 1200;

// Whether no edge of the outline comes into the ring.
bool isAllInside(const Polyline& ring, const Polyline& outline) {
  return sharedArea(outline, ring) >= std::abs(signedArea(ring)) - 1;
}

QPen line(const QColor& color, double width) {
  QPen p(color, width);
  p.setCapStyle(Qt::FlatCap);
  p.setJoinStyle(Qt::MiterJoin);
  return p;
}

}  // namespace

PrintPlan::PrintPlan(const Order& order, const Design& design, const PrintWishes& wishes)
    : order_(order), design_(design), sheets_(layOnSheets(design.pattern, design.cutOutlines, wishes)) {
  boning_ = boningOf(design.pattern, design.block, design.rules);
  orderLines_ = orderLines(order, design);
  const PaperSize& paper = sheets_.paper;
  tiled_ = findPaper(paper.id) || sheets_.tiling.tiles.size() > 1;
  width_ = paper.width;
  height_ = paper.height;
  if (tiled_) return;
  const bool roll = width_ > 0;
  margin_ = roll ? kTileMargin : kSheetMargin;
  const double said = 2 * kTestSquareInchMm + 2 * kInfoWidth + 40;
  if (!roll) width_ = std::max(sheets_.layout.width, said) + 2 * margin_;
  besides_ = width_ >= said + 2 * margin_;
  height_ = margin_ + kHead + sheets_.layout.height + 12 + kTestSquareInchMm + (besides_ ? 0 : kSaidBelow) + margin_;
}

int PrintPlan::pages() const { return tiled_ ? 1 + static_cast<int>(sheets_.tiling.tiles.size()) : 1; }

void PrintPlan::draw(QPainter& painter, int page, PrintLayer layer) const {
  painter.setRenderHint(QPainter::Antialiasing);
  if (!tiled_) return drawFull(painter, layer);
  if (page > 0) return drawTile(painter, sheets_.tiling.tiles.at(static_cast<size_t>(page) - 1), page, layer);
  if (isDrawnOn(layer, PrintLayer::Frame)) drawCover(painter);
}

Box PrintPlan::testSquare() const {
  const Vec2 low =
      tiled_ ? Vec2{kTileMargin, kTileMargin + kHead} : Vec2{margin_, margin_ + kHead + sheets_.layout.height + 12};
  return {low, low + Vec2{kTestSquareMm, kTestSquareMm}};
}

Box PrintPlan::testSquareInch() const {
  const Box first = testSquare();
  const Vec2 low = tiled_ ? Vec2{first.low.x, first.high.y + 5} : Vec2{first.high.x + 10, first.low.y};
  return {low, low + Vec2{kTestSquareInchMm, kTestSquareInchMm}};
}

void PrintPlan::drawTestSquares(QPainter& painter) const {
  const auto square = [&](const Box& b, const QString& name) {
    painter.setPen(line(lightTheme().ink, 0.25));
    painter.drawRect(QRectF(toQt(b.low), toQt(b.high)));
    drawTextMm(painter, b.low + Vec2{4, 9}, 5, name);
    drawTextMm(painter, b.low + Vec2{4, 15}, 3.5, "measure this square before cutting");
  };
  square(testSquare(), "100 mm");
  square(testSquareInch(), "4 in");
}

void PrintPlan::drawHead(QPainter& painter, Vec2 at, double width) const {
  painter.setPen(lightTheme().ink);
  drawTextMm(painter, at + Vec2{0, 6}, 6.5, q(printTitle(order_)));
  painter.setPen(lightTheme().secondInk);
  drawTextMm(painter, at + Vec2{0, 12}, 4, q(printSubtitle(order_)));
  painter.setPen(line(lightTheme().hairline, 0.25));
  painter.drawLine(toQt(at + Vec2{0, 15}), toQt(at + Vec2{width, 15}));
}

void PrintPlan::drawWords(QPainter& painter, Box box, const std::vector<PrintWords>& said) const {
  painter.setPen(lightTheme().ink);
  for (const PrintWords& w : said)
    box.low.y += drawParagraphMm(painter, box, w.heading ? 4 : 3.4, q(w.text), w.heading) + (w.heading ? 1 : 3);
}

void PrintPlan::drawFull(QPainter& painter, PrintLayer layer) const {
  const Motion shift = Motion::translation({margin_, margin_ + kHead});
  const Labelling labelling{design_.pattern, design_.rules, boning_, orderLines_};
  for (size_t k = 0; k < sheets_.layout.pieces.size(); ++k)
    drawPrintedPiece(painter, order_, design_, labelling, sheets_.layout.pieces[k],
                     sheets_.layout.motions[k].then(shift), layer);
  if (!isDrawnOn(layer, PrintLayer::Frame)) return;
  drawHead(painter, {margin_, margin_}, width_ - 2 * margin_);
  drawTestSquares(painter);
  const Box square = testSquareInch();
  const Vec2 low = besides_ ? Vec2{square.high.x + 10, square.low.y} : Vec2{margin_, square.high.y + 8};
  const double wide = besides_ ? kInfoWidth : (width_ - 2 * margin_ - 10) / 2;
  drawWords(painter, {low, {low.x + wide, height_ - margin_}}, printFacts(order_, design_));
  drawWords(painter, {{low.x + wide + 10, low.y}, {width_ - margin_, height_ - margin_}},
            printCautions(order_, design_));
}

void PrintPlan::drawPageMap(QPainter& painter, const Box& box) const {
  const Theme& theme = lightTheme();
  const double stepX = width_ - 2 * kTileMargin - kTileOverlap, stepY = height_ - 2 * kTileMargin - kTileOverlap;
  const double scale = std::min(box.width() / (sheets_.tiling.columns * stepX + kTileOverlap),
                                box.height() / (sheets_.tiling.rows * stepY + kTileOverlap));
  painter.save();
  painter.translate(toQt(box.low));
  painter.scale(scale, scale);
  painter.setPen(line(theme.hairline, 0.3 / scale));
  for (const Tile& t : sheets_.tiling.tiles)
    painter.drawRect(QRectF(t.column * stepX + kTileOverlap / 2, t.row * stepY + kTileOverlap / 2, stepX, stepY));
  painter.setPen(line(theme.ink, 0.25 / scale));
  painter.setBrush(theme.tint);
  for (const Polyline& outline : sheets_.layout.outlines) painter.drawPolygon(toQt(outline));
  painter.setBrush(Qt::NoBrush);
  painter.setPen(theme.working);
  const double height = std::min(5 / scale, 0.3 * stepX);
  for (const Tile& t : sheets_.tiling.tiles)
    drawTextMm(painter, {t.column * stepX + 0.1 * stepX, t.row * stepY + 0.1 * stepX + height}, height, q(t.name));
  painter.restore();
}

void PrintPlan::drawCover(QPainter& painter) const {
  drawHead(painter, {kTileMargin, kTileMargin}, width_ - 2 * kTileMargin);
  drawTestSquares(painter);
  const double left = testSquareInch().high.x + 8, right = width_ - kTileMargin, top = testSquare().low.y;
  painter.setPen(lightTheme().ink);
  drawParagraphMm(painter, {{left, top}, {right, top + 8}}, 4,
                  QString("Page map: %1 sheets").arg(sheets_.tiling.tiles.size()), true);
  drawPageMap(painter, {{left, top + 7}, {right, top + 75}});
  painter.setPen(lightTheme().secondInk);
  drawParagraphMm(painter, {{left, top + 80}, {right, top + 105}}, 3.4,
                  QString("Print at 100 %, without fitting to the page. Cut each sheet along its frame on two sides, "
                          "lay cross on cross and glue: neighbours share %1 mm.")
                      .arg(kTileOverlap));
  drawWords(painter, {{left, top + 106}, {right, height_ - kTileMargin - 34}}, printCautions(order_, design_));
  drawWords(painter, {{kTileMargin, testSquareInch().high.y + 5}, {right, height_ - kTileMargin}},
            printFacts(order_, design_));
}

// Crosses at fixed places of the whole layout, in the middle of the glued strips: both neighbours print the same ones.
void PrintPlan::drawRegistration(QPainter& painter, const Tile& t) const {
  const double stepX = t.area.width() - kTileOverlap, stepY = t.area.height() - kTileOverlap;
  const double x0 = t.column * stepX + kTileOverlap / 2, y0 = t.row * stepY + kTileOverlap / 2;
  constexpr double kArm = 4;
  painter.setPen(line(lightTheme().ink, 0.25));
  for (double x : {x0, x0 + stepX / 2, x0 + stepX}) {
    for (double y : {y0, y0 + stepY / 2, y0 + stepY}) {
      if (x == x0 + stepX / 2 && y == y0 + stepY / 2) continue;
      painter.drawLine(QPointF(x - kArm, y), QPointF(x + kArm, y));
      painter.drawLine(QPointF(x, y - kArm), QPointF(x, y + kArm));
      painter.drawEllipse(QPointF(x, y), 1.5, 1.5);
    }
  }
}

// A sheet with nothing but the inside of a piece says of which: it is needed, to cut the piece from the glued paper.
void PrintPlan::drawInside(QPainter& painter, const Tile& t) const {
  const Polyline ring = ringOf(t.area);
  for (size_t k = 0; k < sheets_.layout.pieces.size(); ++k) {
    if (!isAllInside(ring, sheets_.layout.outlines[k])) continue;
    const Piece& piece = design_.pattern.pieces[sheets_.layout.pieces[k]];
    painter.setPen(lightTheme().secondInk);
    drawTextMm(
        painter, {t.area.low.x + 5, t.area.high.y - 5}, 4,
        QString("No line crosses this sheet: it is the inside of %1, %2.").arg(piece.number).arg(words(piece.name)));
  }
}

void PrintPlan::drawTile(QPainter& painter, const Tile& t, int page, PrintLayer layer) const {
  const Theme& theme = lightTheme();
  painter.save();
  painter.setClipRect(QRectF(kTileMargin, kTileMargin, t.area.width(), t.area.height()));
  painter.translate(kTileMargin - t.area.low.x, kTileMargin - t.area.low.y);
  const Labelling labelling{design_.pattern, design_.rules, boning_, orderLines_};
  const PaperLayout& layout = sheets_.layout;
  for (size_t k = 0; k < layout.pieces.size(); ++k)
    if (layout.boxes[k].meets(t.area))
      drawPrintedPiece(painter, order_, design_, labelling, layout.pieces[k], layout.motions[k], layer);
  const bool frame = isDrawnOn(layer, PrintLayer::Frame);
  if (frame) {
    drawRegistration(painter, t);
    drawInside(painter, t);
  }
  painter.restore();
  if (!frame) return;
  painter.setPen(line(theme.hairline, 0.2));
  painter.setBrush(Qt::NoBrush);
  painter.drawRect(QRectF(kTileMargin, kTileMargin, t.area.width(), t.area.height()));
  painter.setPen(theme.secondInk);
  drawTextMm(
      painter, {kTileMargin, height_ - 4}, 4,
      QString("%1 · %2 · sheet %3 of %4").arg(q(t.name), q(order_.title)).arg(page).arg(sheets_.tiling.tiles.size()));
}

namespace {

std::string pdfOf(const PrintPlan& plan, const std::string& title, PrintLayer layer) {
  QBuffer buffer;
  buffer.open(QIODevice::WriteOnly);
  {
    QPdfWriter writer(&buffer);
    writer.setResolution(kDotsPerInch);
    writer.setTitle(q(title));
    writer.setCreator("Armure");
    // Orientation stays portrait and the size is given as it is: Qt would swap the sides of a landscape sheet.
    writer.setPageLayout(QPageLayout(
        QPageSize(QSizeF(plan.pageWidth(), plan.pageHeight()), QPageSize::Millimeter, QString(), QPageSize::ExactMatch),
        QPageLayout::Portrait, QMarginsF()));
    QPainter painter(&writer);
    for (int page = 0; page < plan.pages(); ++page) {
      if (page > 0) writer.newPage();
      painter.save();
      painter.scale(kDotsPerInch / kMmPerInch, kDotsPerInch / kMmPerInch);
      plan.draw(painter, page, layer);
      painter.restore();
    }
  }
  return buffer.data().toStdString();
}

}  // namespace

std::string pdfBytes(const PrintPlan& plan, const std::string& title) {
  std::vector<PdfLayer> layers;
  for (const PrintLayerInfo& info : kPrintLayers) layers.push_back({info.name, pdfOf(plan, title, info.layer)});
  return layeredPdf(pdfOf(plan, title, PrintLayer::Frame), layers);
}

std::optional<Problem> writePdf(const std::string& path, const PrintPlan& plan, const std::string& title) {
  return writeFileAtomically(path, pdfBytes(plan, title));
}

}  // namespace armure
