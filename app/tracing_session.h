// app/tracing_session.h
//
// A drawing that is being named: its lines, what was said of them so far with undo, and the pattern that makes. What
// was said is kept under the user's state folder as it is said, and is there again when the same drawing is opened.
#pragma once

#include <QObject>
#include <optional>
#include <string>

#include "order/history.h"
#include "result.h"
#include "tracing/corrections.h"
#include "tracing/outlines.h"

namespace armure {

class TracingSession : public QObject {
  Q_OBJECT
 public:
  // `text` is the drawing's, to know it again by.
  TracingSession(LineDrawing drawing, std::string file, const std::string& text, QObject* parent = nullptr);

  const TracingNames& names() const { return history_.now(); }
  const LineDrawing& drawing() const { return scaled_; }  // at its true size
  const std::vector<TracedOutline>& outlines() const { return outlines_; }
  const std::string& file() const { return file_; }
  Message units() const { return drawing_.units; }
  // The pattern as named now, or the first thing that is not said yet.
  const Result<Pattern>& pattern() const { return pattern_; }
  // Says it was named before.
  bool wasKept() const { return wasKept_; }

  void change(TracingNames next, const char* name, const char* mergeKey = "");
  void settle() { history_.settle(); }
  void setScale(double scale);
  bool canUndo() const { return history_.canUndo(); }
  bool canRedo() const { return history_.canRedo(); }
  void undo();
  void redo();
  // The base is kept: what was said need not be kept beside it.
  void forget() const;

  // The edge picked; its piece may be picked without one.
  const TracedEdge& picked() const { return picked_; }
  void pick(TracedEdge edge);

 signals:
  void changed();
  void pickedChanged();

 private:
  void follow();
  void keep() const;
  std::string keptAs() const;

  LineDrawing drawing_, scaled_;
  double scale_ = 1;  // of scaled_
  std::vector<TracedOutline> outlines_;
  std::string file_, mark_;
  bool wasKept_ = false;
  History<TracingNames> history_;
  Result<Pattern> pattern_;
  TracedEdge picked_;
};

}  // namespace armure
