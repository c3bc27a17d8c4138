// core/sheet/rows.h
//
// What every maker of rows needs: rows that begin with where they are, names in the maker's words, and the judgement.
// Each add...Rows appends the rows of one side of the garment to `rows`.
#pragma once

#include "sheet/measure.h"
#include "sheet/sheet.h"

namespace armure {

void addSeamRows(const SheetInput& input, std::vector<CheckRow>& rows);
void addBodyRows(const SheetInput& input, std::vector<CheckRow>& rows);
void addPieceRows(const SheetInput& input, std::vector<CheckRow>& rows);

class RowMaker {
 public:
  RowMaker(const SheetInput& input, std::vector<CheckRow>& rows)
      : input_(input), pattern_(input.pattern), rows_(rows) {}

 protected:
  // Passes within the limit; else fails, or is what `otherwise` says, with what would mend it.
  void judge(CheckRow& r, double amount, double limit, Message remedy, Verdict otherwise = Verdict::Fail);

  std::vector<SheetHalf> halves() const;
  // The pattern's seam that is this one of a half.
  const Seam& wholeSeam(const Seam& ofHalf, BodySide side) const;

  static CheckRow edgeRow(CheckKind kind, const Piece& piece, const Edge& edge, Message subject);
  static CheckRow pieceRow(const Piece& piece, Message what);

  const SheetInput& input_;
  const Pattern& pattern_;
  std::vector<CheckRow>& rows_;
};

}  // namespace armure
