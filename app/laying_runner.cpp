#include "app/laying_runner.h"

#include <chrono>
#include <optional>

#include "laying/search.h"

namespace armure {
namespace {

using Clock = std::chrono::steady_clock;
constexpr double kTold = 0.08;  // s between two tellings

double since(Clock::time_point then) { return std::chrono::duration<double>(Clock::now() - then).count(); }

}  // namespace

LayingRunner::LayingRunner(QObject* parent) : QObject(parent) {}

LayingRunner::~LayingRunner() {
  waiting_.reset();
  if (!thread_) return;
  stop();
  thread_->wait();
  delete thread_;
}

std::vector<StripLayout> LayingRunner::layouts() const {
  const std::scoped_lock lock(shared_->mutex);
  return shared_->layouts;
}

double LayingRunner::progress() const { return shared_->progress; }

void LayingRunner::stop() { shared_->stop = true; }

void LayingRunner::start(std::vector<ClothLaying> layings, std::vector<StripLayout> from, double seconds) {
  stop();
  shared_ = std::make_shared<Shared>();  // what is under way has its own
  shared_->layouts.resize(layings.size());
  waiting_ = Job{std::move(layings), std::move(from), seconds};
  if (!thread_) next();
}

void LayingRunner::next() {
  thread_ = QThread::create([this, job = std::move(*waiting_), shared = shared_] { search(job, *shared); });
  waiting_.reset();
  connect(thread_, &QThread::finished, this, [this] {
    thread_->deleteLater();
    thread_ = nullptr;
    if (waiting_) return next();
    emit better();
    emit ended();
  });
  thread_->start(QThread::LowPriority);
}

void LayingRunner::search(const Job& job, Shared& shared) {
  const std::vector<ClothLaying>& layings = job.layings;
  std::vector<std::unique_ptr<LayingSearch>> searches(layings.size());
  const auto keep = [&](size_t i) {
    const std::scoped_lock lock(shared.mutex);
    const bool is = shared.layouts[i].items.empty() || searches[i]->best().length < shared.layouts[i].length;
    if (is) shared.layouts[i] = searches[i]->best();
    return is;
  };
  for (size_t i = 0; i < layings.size() && !shared.stop; ++i) {
    if (layings[i].unfit) continue;
    searches[i] = std::make_unique<LayingSearch>(layings[i].problem);
    if (i < job.from.size()) searches[i]->offer(job.from[i]);
    keep(i);
    emit better();
  }
  const Clock::time_point begin = Clock::now();
  Clock::time_point told = begin;
  bool isNew = false, more = true;
  while (more && !shared.stop && since(begin) < job.seconds) {
    more = false;
    for (size_t i = 0; i < searches.size() && !shared.stop; ++i) {
      if (!searches[i] || searches[i]->isShortest()) continue;
      searches[i]->step();
      isNew = keep(i) || isNew;
      more = true;
    }
    shared.progress = since(begin) / job.seconds;
    if (since(told) < kTold) continue;
    told = Clock::now();
    if (isNew) emit better();
    isNew = false;
  }
  shared.progress = 1;
}

}  // namespace armure
