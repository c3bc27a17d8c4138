// app/sheets_runner.h
//
// Lays the pieces on their sheets of paper in the background, once a change has settled: a fraction of a second that no
// drag has to wait for. Until it is done the table shows the pieces where they lay before.
#pragma once

#include <QObject>
#include <QThread>
#include <QTimer>
#include <functional>
#include <memory>
#include <optional>

#include "prepare/sheets.h"

namespace armure {

// What is to be laid on sheets.
struct SheetsJob {
  Pattern pattern;
  std::vector<Polyline> cutOutlines;
  PrintWishes wishes;
};

class SheetsRunner : public QObject {
  Q_OBJECT
 public:
  // `job` is asked for what there is to lay once a change has settled; it may be nothing.
  explicit SheetsRunner(std::function<std::optional<SheetsJob>()> job, QObject* parent = nullptr);
  ~SheetsRunner() override;  // waits for the laying under way

  // Something may have changed.
  void changed() { waits_.start(); }
  // What was laid last, on this paper; nullptr where nothing was, or other pieces.
  const Sheets* sheets(const Pattern& pattern, const PrintWishes& wishes) const;

 signals:
  void done();  // from the event loop, after a laying

 private:
  void start();

  std::function<std::optional<SheetsJob>()> job_;
  QTimer waits_;
  QThread* thread_ = nullptr;
  std::optional<SheetsJob> laid_;
  std::shared_ptr<const Sheets> sheets_;
};

}  // namespace armure
