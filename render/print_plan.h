// render/print_plan.h
//
// What goes on which sheet of paper: one large sheet, or a roll, or tiles with a cover sheet that carries the page map,
// the test squares, what was estimated, what the balance sheet found, and the cautions. PDF and printer draw the same
// plan.
#pragma once

#include <QPainter>
#include <optional>
#include <string>
#include <string_view>

#include "io/print_words.h"
#include "prepare/drawing.h"
#include "prepare/sheets.h"
#include "recalc/recalc.h"
#include "render/print_layers.h"

namespace armure {

// Keeps references: `order` and `design` must outlive the plan.
class PrintPlan {
 public:
  // Throws std::invalid_argument for a paper that is not known.
  PrintPlan(const Order& order, const Design& design, const PrintWishes& wishes);

  int pages() const;
  double pageWidth() const { return width_; }  // mm
  double pageHeight() const { return height_; }

  // Draws page `page` (from 0). The painter's unit must be 1 mm, its origin the top left corner of the sheet.
  void draw(QPainter& painter, int page, PrintLayer layer = PrintLayer::Everything) const;

  // Where the test squares stand on page 0, mm from the top left corner of the sheet.
  Box testSquare() const;
  Box testSquareInch() const;

 private:
  void drawFull(QPainter& painter, PrintLayer layer) const;
  void drawCover(QPainter& painter) const;
  void drawTile(QPainter& painter, const Tile& tile, int page, PrintLayer layer) const;
  void drawTestSquares(QPainter& painter) const;
  void drawHead(QPainter& painter, Vec2 at, double width) const;
  void drawPageMap(QPainter& painter, const Box& box) const;
  void drawWords(QPainter& painter, Box box, const std::vector<PrintWords>& said) const;
  void drawInside(QPainter& painter, const Tile& tile) const;
  void drawRegistration(QPainter& painter, const Tile& tile) const;

  const Order& order_;
  const Design& design_;
  Sheets sheets_;
  Boning boning_;
  std::vector<Message> orderLines_;
  bool tiled_ = false;
  bool besides_ = true;  // what is said stands beside the squares, else below them
  double margin_ = 0, width_ = 0, height_ = 0;
};

// The plan as a PDF file's bytes, and written to a file: at true size, with a layer per kind of line.
std::string pdfBytes(const PrintPlan& plan, const std::string& title);
std::optional<Problem> writePdf(const std::string& path, const PrintPlan& plan, const std::string& title);

}  // namespace armure
