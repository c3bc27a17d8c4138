#include "app/sheets_runner.h"

#include <algorithm>

namespace armure {
namespace {

constexpr int kSettles = 250;  // ms

}  // namespace

SheetsRunner::SheetsRunner(std::function<std::optional<SheetsJob>()> job, QObject* parent)
    : QObject(parent), job_(std::move(job)) {
  waits_.setSingleShot(true);
  waits_.setInterval(kSettles);
  connect(&waits_, &QTimer::timeout, this, &SheetsRunner::start);
}

SheetsRunner::~SheetsRunner() {
  if (!thread_) return;
  thread_->wait();
  delete thread_;
}

const Sheets* SheetsRunner::sheets(const Pattern& pattern, const PrintWishes& wishes) const {
  if (!laid_ || laid_->wishes != wishes) return nullptr;
  const bool same = std::ranges::equal(pattern.pieces, laid_->pattern.pieces, {}, &Piece::id, &Piece::id);
  return same ? sheets_.get() : nullptr;
}

void SheetsRunner::start() {
  if (thread_) return waits_.start();  // what is being laid ends soon
  std::optional<SheetsJob> job = job_();
  if (!job || (laid_ && laid_->wishes == job->wishes && laid_->cutOutlines == job->cutOutlines)) return;
  const auto laying = std::make_shared<SheetsJob>(std::move(*job));
  const auto made = std::make_shared<Sheets>();
  thread_ =
      QThread::create([laying, made] { *made = layOnSheets(laying->pattern, laying->cutOutlines, laying->wishes); });
  connect(thread_, &QThread::finished, this, [this, laying, made] {
    thread_->deleteLater();
    thread_ = nullptr;
    laid_ = std::move(*laying);
    sheets_ = made;
    emit done();
  });
  thread_->start(QThread::LowPriority);
}

}  // namespace armure
