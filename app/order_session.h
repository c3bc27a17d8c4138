// app/order_session.h
//
// What the window works on: one order with its history, its file, and everything that follows from it. No widgets;
// every change goes through here, is recorded for undo, and is followed at once by a new design.
#pragma once

#include <QObject>
#include <memory>
#include <optional>
#include <set>
#include <string>
#include <vector>

#include "app/selection.h"
#include "io/order_file.h"
#include "order/history.h"
#include "prepare/sheets.h"
#include "recalc/idle.h"
#include "recalc/recalc.h"

namespace armure {

class OrderSession : public QObject {
  Q_OBJECT
 public:
  explicit OrderSession(QObject* parent = nullptr);

  const Order& order() const { return history_.now(); }
  // The last design that could be made, as it is looked at: of one side of the body, where left and right are not
  // alike. nullptr before there is one. It is out of date while problem() is set.
  const Design* design() const { return !design_ || asCut_ ? design_.get() : &design_->half(side_); }
  // All pieces of both sides: what is printed and exported.
  const Design* whole() const { return design_.get(); }
  // Which side is looked at, or all pieces as they are cut.
  BodySide side() const { return side_; }
  void lookAt(BodySide side);  // Left or Right
  void lookAsCut(bool asCut);
  // The pieces balanced: those of the design where the order keeps them so, else the proposal, worked out when it is
  // first asked for. nullptr before there is a design.
  const Balanced* balanced() const;
  const std::optional<Problem>& problem() const { return problem_; }
  const std::string& path() const { return path_; }
  bool isSaved() const { return order() == saved_; }
  const Order& savedOrder() const { return saved_; }
  const std::vector<std::string>& warnings() const { return warnings_; }
  void dismissWarnings() { warnings_.clear(); }
  const Selection& selection() const { return selection_; }

  // What of the order has no effect (recalc/idle.h); worked out when it is first asked for after a change.
  const std::vector<Idle>& idle() const;

  // What is asked about the measures; up to date even while nothing can be drafted.
  const std::vector<Question>& questions() const { return questions_; }
  // How many of them want a look: all but notes.
  size_t openQuestions() const;

  // The rule in force for a key: from the design, else from the order alone.
  RuleValue rule(std::string_view key) const;
  // The paper the order is printed on, and the pieces that are not left out.
  PrintWishes printWishes() const;
  // Pieces that are not printed nor drawn in files, by id; for this sitting, no part of the order.
  const std::set<std::string>& leftOut() const { return leftOut_; }
  void leaveOut(std::set<std::string> pieces);
  bool printsNothing() const;  // every piece is left out

  // Changes, each one step of undo; typing in one field is one step. They return what is wrong with the text, and then
  // nothing has changed. An empty text takes a measure or a choice back.
  std::optional<Problem> setMeasure(std::string_view id, std::string_view text);
  // One reading of the tape more for a measure; a step of its own.
  std::optional<Problem> addTaking(std::string_view id, const Taking& taking);
  // Whether the mean or the last of several takings counts.
  void setUse(std::string_view id, Use use);
  std::optional<Problem> setChoice(std::string_view key, std::string_view text);
  // The same by hand on the rails or the table: what cannot be drafted is not done, and the Problem says why.
  std::optional<Problem> tryChoice(const std::string& key, std::string_view text);
  // Any other change of the order as one step; what cannot be drafted is not done, and the Problem says why.
  std::optional<Problem> tryOrder(Order next, const std::string& name, const std::string& mergeKey = "");
  // The same, never merged with what was done before or after.
  std::optional<Problem> step(Order next, const std::string& name);
  // What the maker's hand set on the rails: gives every held intake back to the school; takes a level away with all
  // that was set on it.
  void giveAllBack();
  void takeAwayLevel(std::string_view level);
  // Both sides of a seam give way again: what was chosen for it, and the locks of its edges, are taken back.
  void letGive(const std::string& seam);
  void setText(std::string Order::*member, std::string value, const std::string& name);
  void setStyle(std::string_view id);
  void setSchool(std::string_view id);
  void toggleUnits();
  // Measures from elsewhere: a set of the client book, or a standard size. Replaces all of them.
  void takeMeasures(const MeasureSet& measures, const std::string& client, const std::string& date, BookReference book);
  void setBook(BookReference book);     // the measures were kept there; they do not change
  void settle() { history_.settle(); }  // a field is left: the next typing is a step of its own

  bool canUndo() const { return history_.canUndo(); }
  bool canRedo() const { return history_.canRedo(); }
  std::string undoName() const { return history_.undoName(); }
  std::string redoName() const { return history_.redoName(); }
  void undo();
  void redo();

  // Files. The Problem, or nothing; on a Problem nothing has changed, neither here nor on the disk.
  void startNew(const Choices& choices = choicesOfNewOrders(), Unit units = Unit::Inch);
  std::optional<Problem> open(const std::string& path);
  std::optional<Problem> importMeasures(const std::string& path);
  // Where the file was changed by somebody else since it was opened or saved, what stands there is kept beside it
  // first; `keptBeside` says where.
  struct Saving {
    std::optional<Problem> problem;
    std::string keptBeside{};
  };
  Saving save(const std::string& path);
  // Whether the file at `path` is the one that was opened or saved last, and says something else by now.
  bool changedOnDisk(const std::string& path) const;
  // The file is open elsewhere: it is shown here, and saved under another name.
  bool isForReading() const { return forReading_; }
  void setForReading(bool forReading);
  // Takes up recovered work: the text of an order, and the path it belongs to (may be empty). It counts as unsaved.
  std::optional<Problem> recover(const std::string& text, const std::string& path);
  OrderFile asFile() const { return {order(), original_, {}}; }

  void select(Selection selection);

 signals:
  void changed();  // order, design or file state
  void selectionChanged();

 private:
  void record(Order next, std::string name, std::string mergeKey = "");
  void refresh();
  void lookedElsewhere();
  void show(Result<Design> made);
  void replace(OrderFile file, std::string path, bool saved);

  History<Order> history_;
  Order saved_;
  std::string path_, original_;
  std::string onDisk_;  // the text of the file as it was opened or saved
  bool forReading_ = false;
  std::vector<std::string> warnings_;
  std::vector<Question> questions_;
  std::unique_ptr<const Design> design_;
  BodySide side_ = BodySide::Left;
  bool asCut_ = false;
  std::set<std::string> leftOut_;
  mutable std::unique_ptr<const Balanced> proposal_;
  mutable std::optional<std::vector<Idle>> idle_;
  std::optional<Problem> problem_;
  Selection selection_;
};

}  // namespace armure
