#include "app/sheets_runner.h"

#include <algorithm>

namespace armure {
namespace {

constexpr int kSettles = 250;  // ms

bool isSame(const PrintWishes& a, const PrintWishes& b) {
  return a.paper == b.paper && a.roll == b.roll && a.pieces == b.pieces;
}

}  // namespace

SheetsRunner::SheetsRunner(QObject* parent) : QObject(parent) {
  waits_.setSingleShot(true);
  waits_.setInterval(kSettles);
  connect(&waits_, &QTimer::timeout, this, &SheetsRunner::start);
}

SheetsRunner::~SheetsRunner() {
  if (!thread_) return;
  thread_->wait();
  delete thread_;
}

void SheetsRunner::ask(const Pattern& pattern, const std::vector<Polyline>& cutOutlines, const PrintWishes& wishes) {
  const auto is = [&](const std::optional<Asked>& a) {
    return a && isSame(a->wishes, wishes) && a->cutOutlines == cutOutlines;
  };
  if (waits_.isActive() ? is(asked_) : is(laying_) || (!thread_ && is(laid_))) return;
  asked_ = Asked{pattern, cutOutlines, wishes};
  waits_.start();
}

const Sheets* SheetsRunner::sheets(const Pattern& pattern, const PrintWishes& wishes) const {
  if (!sheets_ || !isSame(laid_->wishes, wishes)) return nullptr;
  const bool same = std::ranges::equal(pattern.pieces, laid_->pattern.pieces, {}, &Piece::id, &Piece::id);
  return same ? sheets_.get() : nullptr;
}

void SheetsRunner::start() {
  if (thread_) return waits_.start();  // what is being laid ends soon
  laying_ = std::move(asked_);
  asked_.reset();
  auto made = std::make_shared<std::shared_ptr<const Sheets>>();
  thread_ = QThread::create([asked = *laying_, made] {
    *made = std::make_shared<const Sheets>(layOnSheets(asked.pattern, asked.cutOutlines, asked.wishes));
  });
  connect(thread_, &QThread::finished, this, [this, made] {
    thread_->deleteLater();
    thread_ = nullptr;
    laid_ = std::move(laying_);
    laying_.reset();
    sheets_ = *made;
    emit done();
  });
  thread_->start(QThread::LowPriority);
}

}  // namespace armure
