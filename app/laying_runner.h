// app/laying_runner.h
//
// Looks for layouts of all cloths in the background: the first within a moment, then shorter ones while there is time.
// The best so far can be had at any time.
#pragma once

#include <QObject>
#include <QThread>
#include <atomic>
#include <memory>
#include <mutex>
#include <optional>
#include <vector>

#include "prepare/cloth_laying.h"

namespace armure {

class LayingRunner : public QObject {
  Q_OBJECT
 public:
  explicit LayingRunner(QObject* parent = nullptr);
  ~LayingRunner() override;

  // Begins anew; what is under way is stopped. `from` are layouts to begin with where they are sound, by cloth.
  void start(std::vector<ClothLaying> layings, std::vector<StripLayout> from, double seconds);
  void stop();
  bool isBusy() const { return thread_ != nullptr; }
  // By cloth, in the order they were given; without items where none was found yet.
  std::vector<StripLayout> layouts() const;
  double progress() const;  // of the time it has, from 0 to 1

 signals:
  void better();  // a layout is there, or a shorter one; and at the end
  void ended();

 private:
  struct Shared {
    mutable std::mutex mutex;
    std::vector<StripLayout> layouts;
    std::atomic<double> progress{0};
    std::atomic<bool> stop{false};
  };
  struct Job {
    std::vector<ClothLaying> layings;
    std::vector<StripLayout> from;
    double seconds = 0;
  };
  void next();
  void search(const Job& job, Shared& shared);  // in the thread

  QThread* thread_ = nullptr;
  std::optional<Job> waiting_;  // for what is under way to stop
  std::shared_ptr<Shared> shared_ = std::make_shared<Shared>();
};

}  // namespace armure
