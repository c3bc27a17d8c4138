// render/print_plan.h
//
// What goes on which sheet of paper: one large sheet, or tiles with a cover sheet that carries the page map, the test
// squares, what was estimated, what the balance sheet found, and the cautions. PDF and printer draw the same plan.
#pragma once

#include <QPainter>
#include <optional>
#include <string>
#include <string_view>

#include "prepare/arrange.h"
#include "prepare/drawing.h"
#include "prepare/paper.h"
#include "recalc/recalc.h"

namespace armure {

// Keeps references: `order` and `design` must outlive the plan.
class PrintPlan {
 public:
  // `paper` is "full" or the id of a paper size; throws std::invalid_argument for anything else.
  PrintPlan(const Order& order, const Design& design, std::string_view paper);

  int pages() const;
  double pageWidth() const { return width_; }  // mm
  double pageHeight() const { return height_; }

  // Draws page `page` (from 0). The painter's unit must be 1 mm, its origin the top left corner of the sheet.
  void draw(QPainter& painter, int page) const;

  // Where the test squares stand on page 0, mm from the top left corner of the sheet.
  Box testSquare() const;
  Box testSquareInch() const;

 private:
  void drawFull(QPainter& painter) const;
  void drawCover(QPainter& painter) const;
  void drawTile(QPainter& painter, const Tile& tile, int page) const;
  void drawTestSquares(QPainter& painter) const;
  void drawHead(QPainter& painter, Vec2 at, double width) const;
  void drawPageMap(QPainter& painter, const Box& box) const;
  void drawFacts(QPainter& painter, Box box) const;
  void drawCautions(QPainter& painter, Box box) const;
  void drawRegistration(QPainter& painter, const Tile& tile) const;

  const Order& order_;
  const Design& design_;
  PaperLayout layout_;
  Boning boning_;
  std::vector<Message> orderLines_;
  const PaperSize* paper_ = nullptr;  // nullptr: one full-size sheet
  Tiling tiling_;
  double width_ = 0, height_ = 0;
};

// The plan as a PDF file's bytes, and written to a file. PDF unit: true size.
std::string pdfBytes(const PrintPlan& plan, const std::string& title);
std::optional<Problem> writePdf(const std::string& path, const PrintPlan& plan, const std::string& title);

}  // namespace armure
