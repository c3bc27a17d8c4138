// app/trial_runner.h
//
// Tries orders on in the background, one at a time, the last asked for first: what was asked before and has not ended
// is stopped. A trial begins where the cloth lay in the last one, if the same pieces are worn.
#pragma once

#include <QObject>
#include <QThread>
#include <atomic>
#include <memory>
#include <optional>

#include "recalc/recalc.h"
#include "tryon/findings.h"

namespace armure {

struct Trying {
  Result<TryOn> result;
  std::vector<Finding> findings;
};

class TrialRunner : public QObject {
  Q_OBJECT
 public:
  explicit TrialRunner(QObject* parent = nullptr);
  ~TrialRunner() override;  // waits for the trial under way, which is stopped

  // A pattern as it stands, or an order that is drafted, balanced and tried. `done` is emitted from the event loop.
  void start(const Pattern& pattern, const Body& body, const Rules& rules);
  void start(const Order& order);
  // The tension, N/cm, with which trials asked for from now on are laced; nothing: to the gap.
  void setLaced(std::optional<double> laced) { laced_ = laced; }
  bool isBusy() const { return thread_ != nullptr; }

 signals:
  void done(std::shared_ptr<const Trying> trying);

 private:
  using Job = std::function<Trying(const TryOnOptions&)>;
  void run(Job job);
  void next();

  QThread* thread_ = nullptr;
  std::shared_ptr<std::atomic<bool>> stop_;
  std::optional<Job> waiting_;
  std::shared_ptr<const LaidCloth> laid_;
  std::optional<double> laced_;
};

}  // namespace armure
