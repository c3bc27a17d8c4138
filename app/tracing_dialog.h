// app/tracing_dialog.h
//
// A base read from a drawing: the maker says what its outlines, edges and levels are, by clicking on them or from the
// boxes beside; what is guessed stands there already. What is not sound yet is said below, and the base can be kept
// once nothing is.
#pragma once

#include <QDialog>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>
#include <functional>

#include "app/choice_box.h"
#include "app/tracing_canvas.h"
#include "app/tracing_session.h"
#include "app/value_row.h"
#include "units/length.h"

namespace armure {

class TracingDialog : public QDialog {
  Q_OBJECT
 public:
  TracingDialog(TracingSession& session, const Theme& theme, LengthFormat units, QWidget* parent = nullptr);

  // Where the base was kept; empty while it is not.
  const std::string& kept() const { return kept_; }
  TracingCanvas& canvas() { return *canvas_; }

 private:
  // What the next clicks on the drawing say.
  enum class Asked { Nothing, KnownLength, Split, Level, Grain, Partner };

  void addHead();
  void addScale();
  void addPiece();
  void addEdge();
  void addLevels();
  void addMade();
  void addKeep();
  void refresh();
  void refreshPiece();
  void refreshEdge();
  void refreshState();
  void ask(Asked what);
  void placeSaid(Vec2 mm);
  void pickedWhileAsked();
  void split(Vec2 at);
  void addLevel(Vec2 a, Vec2 b);
  void layGrain(Vec2 a, Vec2 b);
  QString onPaper(const std::string& measure) const;
  void keep();
  // Takes what a correction gives, or says why not.
  std::optional<Problem> take(Result<TracingNames> next, const char* name, const char* mergeKey = "");
  void changePiece(const char* name, const std::function<void(NamedPiece&)>& how);
  QPushButton* button(QVBoxLayout& column, const QString& id, const QString& text, const std::function<void()>& then);
  ValueRow* row(QVBoxLayout& column, const char* id, const QString& label, const QString& hint, ValueRow::Apply apply);

  TracingSession& session_;
  LengthFormat units_;
  TracingCanvas* canvas_;
  QVBoxLayout* column_;
  QLabel *drawnIn_, *wanted_, *state_;
  QPushButton *undo_, *redo_, *known_, *partner_, *split_, *one_, *level_, *noLevel_, *grain_, *keep_;
  ChoiceBox *pieces_, *half_, *part_, *cut_, *drawn_, *edges_, *role_, *sewn_, *levels_, *levelName_;
  ValueRow *length_, *piece_, *ordinal_, *edge_, *allowance_, *opening_, *name_;
  std::vector<std::pair<std::string, ValueRow*>> made_;
  Asked asking_ = Asked::Nothing;
  std::optional<Vec2> first_;
  std::optional<std::pair<Vec2, Vec2>> knownEnds_;  // in the drawing as it is
  TracedEdge seeking_;                              // whose partner is asked for
  std::string baseName_, kept_;
};

}  // namespace armure
