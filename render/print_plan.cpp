#include "render/print_plan.h"

#include <QBuffer>
#include <QPageLayout>
#include <QPageSize>
#include <QPdfWriter>
#include <QStringList>
#include <algorithm>
#include <stdexcept>

#include "io/atomic_file.h"
#include "measure/measure_table.h"
#include "render/pattern_painter.h"
#include "render/theme.h"
#include "render/words.h"

namespace armure {
namespace {

constexpr double kSheetMargin = 15;  // mm round a full-size sheet
constexpr double kWidestFull = 880;  // mm: fits a 36 in roll
constexpr double kHead = 18;         // mm for title and client
constexpr double kInfoWidth = 150;   // mm of text beside the squares on a full-size sheet
constexpr int kDotsPerInch = 1200;

QPen line(const QColor& color, double width) {
  QPen p(color, width);
  p.setCapStyle(Qt::FlatCap);
  p.setJoinStyle(Qt::MiterJoin);
  return p;
}

}  // namespace

PrintPlan::PrintPlan(const Order& order, const Design& design, std::string_view paper)
    : order_(order), design_(design) {
  layout_ = layOutOnPaper(design.pattern, design.cutOutlines, kWidestFull);
  boning_ = boningOf(design.pattern, design.block, design.rules);
  orderLines_ = orderLines(order, design);
  if (paper == "full") {
    width_ = std::max(layout_.width, 2 * kTestSquareInchMm + 2 * kInfoWidth + 40) + 2 * kSheetMargin;
    height_ = kSheetMargin + kHead + layout_.height + 12 + kTestSquareInchMm + kSheetMargin;
    return;
  }
  paper_ = findPaper(paper);
  if (!paper_) throw std::invalid_argument("PrintPlan: no such paper");
  tiling_ = tile(layout_, *paper_);
  width_ = paper_->width;
  height_ = paper_->height;
}

int PrintPlan::pages() const { return paper_ ? 1 + static_cast<int>(tiling_.tiles.size()) : 1; }

void PrintPlan::draw(QPainter& painter, int page) const {
  painter.setRenderHint(QPainter::Antialiasing);
  if (!paper_) return drawFull(painter);
  if (page == 0) return drawCover(painter);
  drawTile(painter, tiling_.tiles.at(static_cast<size_t>(page) - 1), page);
}

Box PrintPlan::testSquare() const {
  const Vec2 low =
      paper_ ? Vec2{kTileMargin, kTileMargin + kHead} : Vec2{kSheetMargin, height_ - kSheetMargin - kTestSquareInchMm};
  return {low, low + Vec2{kTestSquareMm, kTestSquareMm}};
}

Box PrintPlan::testSquareInch() const {
  const Box first = testSquare();
  const Vec2 low = paper_ ? Vec2{first.low.x, first.high.y + 5} : Vec2{first.high.x + 10, first.low.y};
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
  drawTextMm(painter, at + Vec2{0, 6}, 6.5, order_.title.empty() ? QString("Untitled order") : q(order_.title));
  painter.setPen(lightTheme().secondInk);
  QStringList facts;
  for (const std::string& s : {order_.client, order_.date})
    if (!s.empty()) facts << q(s);
  if (const Preset* style = findStyle(order_.style)) facts << q(std::string(style->name));
  if (const Preset* school = findSchool(order_.school)) facts << q(std::string(school->name));
  drawTextMm(painter, at + Vec2{0, 12}, 4, facts.join(QStringLiteral(" · ")));
  painter.setPen(line(lightTheme().hairline, 0.25));
  painter.drawLine(toQt(at + Vec2{0, 15}), toQt(at + Vec2{width, 15}));
}

void PrintPlan::drawFacts(QPainter& painter, Box box) const {
  const auto paragraph = [&](const QString& text, bool bold) {
    box.low.y += drawParagraphMm(painter, box, bold ? 4 : 3.4, text, bold) + (bold ? 1 : 3);
  };
  painter.setPen(lightTheme().ink);
  QStringList estimated;
  for (const Fact& f : design_.body.facts())
    if (f.source == Source::Estimated && f.id != id::kStature)
      estimated << q(std::string(findMeasure(f.id)->name)).toLower() + " " +
                       q(formatLengthWithUnit(f.mm, order_.units)) + QStringLiteral(" ± ") +
                       q(formatLength(f.spread, order_.units));
  paragraph(estimated.isEmpty() ? "Every measure was taken." : QString("Estimated, not taken: measure before cutting"),
            true);
  if (!estimated.isEmpty()) paragraph(estimated.join(", ") + ".", false);
  const size_t failing = design_.sheet.failing();
  const size_t advice = design_.sheet.count(Verdict::Advice);
  const QString consider = advice == 0 ? QString() : QString("; %1 to consider").arg(advice);
  paragraph((failing == 0 ? QString("Balance sheet: every check passes")
                          : QString("Balance sheet: %1 to mend before cutting").arg(failing)) +
                consider + (failing == 0 ? "." : ""),
            true);
  QStringList rows;
  for (const CheckRow& r : design_.sheet.rows)
    if (r.fails() && rows.size() < 6)
      rows << words(r.subject) + (r.quantity == Quantity::Length
                                      ? " " + q(formatLengthWithUnit(r.amount, {Unit::Millimetre, 8}))
                                      : QString());
  if (!rows.isEmpty()) paragraph(rows.join("; ") + (failing > 6 ? "; and others." : "."), false);
}

void PrintPlan::drawCautions(QPainter& painter, Box box) const {
  const ReductionClass reduction = design_.reduction();
  if (reduction.percent <= 0) return;
  painter.setPen(lightTheme().ink);
  const QString head = QString("Waist %1, closed %2: %3 % less, %4")
                           .arg(q(formatLengthWithUnit(reduction.body, order_.units)),
                                q(formatLengthWithUnit(reduction.finished, order_.units)))
                           .arg(reduction.percent, 0, 'f', 1)
                           .arg(q(std::string(reduction.name)));
  box.low.y += drawParagraphMm(painter, box, 4, head, true) + 1;
  QStringList cautions;
  for (std::string_view c : reductionCautions()) cautions << q(std::string(c));
  drawParagraphMm(painter, box, 3.3, cautions.join(" "));
}

void PrintPlan::drawFull(QPainter& painter) const {
  drawHead(painter, {kSheetMargin, kSheetMargin}, width_ - 2 * kSheetMargin);
  const Motion shift = Motion::translation({kSheetMargin, kSheetMargin + kHead});
  const Labelling labelling{design_.pattern, design_.rules, boning_, orderLines_};
  for (size_t i = 0; i < design_.pattern.pieces.size(); ++i)
    drawPrintedPiece(painter, order_, design_, labelling, i, layout_.motions[i].then(shift));
  drawTestSquares(painter);
  const Vec2 low{testSquareInch().high.x + 10, testSquareInch().low.y};
  drawFacts(painter, {low, {low.x + kInfoWidth, height_ - kSheetMargin}});
  drawCautions(painter, {{low.x + kInfoWidth + 10, low.y}, {width_ - kSheetMargin, height_ - kSheetMargin}});
}

void PrintPlan::drawPageMap(QPainter& painter, const Box& box) const {
  const Theme& theme = lightTheme();
  const double stepX = width_ - 2 * kTileMargin - kTileOverlap, stepY = height_ - 2 * kTileMargin - kTileOverlap;
  const double scale = std::min(box.width() / (tiling_.columns * stepX + kTileOverlap),
                                box.height() / (tiling_.rows * stepY + kTileOverlap));
  painter.save();
  painter.translate(toQt(box.low));
  painter.scale(scale, scale);
  painter.setPen(line(theme.hairline, 0.3 / scale));
  for (const Tile& t : tiling_.tiles)
    painter.drawRect(QRectF(t.column * stepX + kTileOverlap / 2, t.row * stepY + kTileOverlap / 2, stepX, stepY));
  painter.setPen(line(theme.ink, 0.25 / scale));
  painter.setBrush(theme.tint);
  for (size_t i = 0; i < layout_.motions.size(); ++i)
    painter.drawPolygon(toQt(design_.cutOutlines[i], layout_.motions[i]));
  painter.setBrush(Qt::NoBrush);
  painter.setPen(theme.working);
  for (const Tile& t : tiling_.tiles)
    drawTextMm(painter, {t.column * stepX + 18, t.row * stepY + 18 + 5 / scale}, 5 / scale, q(t.name));
  painter.restore();
}

void PrintPlan::drawCover(QPainter& painter) const {
  drawHead(painter, {kTileMargin, kTileMargin}, width_ - 2 * kTileMargin);
  drawTestSquares(painter);
  const double left = testSquareInch().high.x + 8, right = width_ - kTileMargin, top = testSquare().low.y;
  painter.setPen(lightTheme().ink);
  drawParagraphMm(painter, {{left, top}, {right, top + 8}}, 4, QString("Page map: %1 sheets").arg(tiling_.tiles.size()),
                  true);
  drawPageMap(painter, {{left, top + 7}, {right, top + 75}});
  painter.setPen(lightTheme().secondInk);
  drawParagraphMm(painter, {{left, top + 80}, {right, top + 105}}, 3.4,
                  QString("Print at 100 %, without fitting to the page. Cut each sheet along its frame on two sides, "
                          "lay cross on cross and glue: neighbours share %1 mm.")
                      .arg(kTileOverlap));
  drawCautions(painter, {{left, top + 106}, {right, height_ - kTileMargin - 34}});
  drawFacts(painter, {{kTileMargin, testSquareInch().high.y + 5}, {right, height_ - kTileMargin}});
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

void PrintPlan::drawTile(QPainter& painter, const Tile& t, int page) const {
  const Theme& theme = lightTheme();
  painter.save();
  painter.setClipRect(QRectF(kTileMargin, kTileMargin, t.area.width(), t.area.height()));
  painter.translate(kTileMargin - t.area.low.x, kTileMargin - t.area.low.y);
  const Labelling labelling{design_.pattern, design_.rules, boning_, orderLines_};
  for (size_t i = 0; i < layout_.motions.size(); ++i)
    if (layout_.boxes[i].meets(t.area)) drawPrintedPiece(painter, order_, design_, labelling, i, layout_.motions[i]);
  drawRegistration(painter, t);
  painter.restore();
  painter.setPen(line(theme.hairline, 0.2));
  painter.setBrush(Qt::NoBrush);
  painter.drawRect(QRectF(kTileMargin, kTileMargin, t.area.width(), t.area.height()));
  painter.setPen(theme.secondInk);
  drawTextMm(painter, {kTileMargin, height_ - 4}, 4,
             QString("%1 · %2 · sheet %3 of %4").arg(q(t.name), q(order_.title)).arg(page).arg(tiling_.tiles.size()));
}

std::string pdfBytes(const PrintPlan& plan, const std::string& title) {
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
      plan.draw(painter, page);
      painter.restore();
    }
  }
  return buffer.data().toStdString();
}

std::optional<Problem> writePdf(const std::string& path, const PrintPlan& plan, const std::string& title) {
  return writeFileAtomically(path, pdfBytes(plan, title));
}

}  // namespace armure
