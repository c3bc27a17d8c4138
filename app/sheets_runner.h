// app/sheets_runner.h
//
// Lays the pieces on their sheets of paper in the background, once a change has settled: a fraction of a second that no
// drag has to wait for. Until it is done the table shows the pieces where they lay before.
#pragma once

#include <QObject>
#include <QThread>
#include <QTimer>
#include <memory>
#include <optional>

#include "prepare/sheets.h"

namespace armure {

class SheetsRunner : public QObject {
  Q_OBJECT
 public:
  explicit SheetsRunner(QObject* parent = nullptr);
  ~SheetsRunner() override;  // waits for the laying under way

  // Lays these pieces, unless that is what was laid last. `done` is emitted from the event loop.
  void ask(const Pattern& pattern, const std::vector<Polyline>& cutOutlines, const PrintWishes& wishes);
  // What was laid last, on this paper; nullptr where nothing was, or other pieces.
  const Sheets* sheets(const Pattern& pattern, const PrintWishes& wishes) const;
  bool isBusy() const { return thread_ || waits_.isActive(); }

 signals:
  void done();

 private:
  struct Asked {
    Pattern pattern;
    std::vector<Polyline> cutOutlines;
    PrintWishes wishes;
  };
  void start();

  QTimer waits_;
  QThread* thread_ = nullptr;
  std::optional<Asked> asked_, laying_, laid_;
  std::shared_ptr<const Sheets> sheets_;
};

}  // namespace armure
