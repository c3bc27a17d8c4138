#include "app/trial_runner.h"

#include <exception>
#include <utility>

#include "parts/cups/rules.h"
#include "quotable.h"

namespace armure {
namespace {

Trying triedOn(const Pattern& pattern, const Body& body, const Rules& rules, TryOnOptions options) {
  options.breasts = rules.option(key::kBreastShape);
  Trying t{tryOn(pattern, body, options), {}};
  if (t.result.ok()) t.findings = findingsOf(*t.result, pattern, body, rules);
  return t;
}

}  // namespace

TrialRunner::TrialRunner(QObject* parent) : QObject(parent) {}

TrialRunner::~TrialRunner() {
  waiting_.reset();
  if (!thread_) return;
  stop_->store(true);
  thread_->wait();
  delete thread_;
}

void TrialRunner::start(const Pattern& pattern, const Body& body, const Rules& rules) {
  run([pattern, body, rules](const TryOnOptions& options) { return triedOn(pattern, body, rules, options); });
}

void TrialRunner::start(const Order& order) {
  run([order](const TryOnOptions& options) -> Trying {
    const Result<Design> design = recalc(order);
    if (!design.ok()) return {design.problem(), {}};
    const Pattern& pattern = design->pattern;
    return design->balanced ? triedOn(pattern, design->body, design->rules, options)
                            : triedOn(proposal(*design).pattern, design->body, design->rules, options);
  });
}

void TrialRunner::run(Job job) {
  waiting_ = std::move(job);
  if (thread_) {
    stop_->store(true);
  } else {
    next();
  }
}

void TrialRunner::next() {
  if (!waiting_) return;
  stop_ = std::make_shared<std::atomic<bool>>(false);
  TryOnOptions options;
  options.from = laid_;
  options.laced = laced_;
  options.stop = [stop = stop_] { return stop->load(); };
  auto trying = std::make_shared<std::optional<Trying>>();
  thread_ = QThread::create([job = std::move(*waiting_), options, trying] {
    try {
      trying->emplace(job(options));
    } catch (const std::exception& e) {  // a thread must not end the program
      trying->emplace(Trying{Problem{"Trying on", verbatim(quotable(e.what())), "please keep the order file"}, {}});
    }
  });
  waiting_.reset();
  connect(thread_, &QThread::finished, this, [this, trying, stop = stop_] {
    thread_->deleteLater();
    thread_ = nullptr;
    if (*trying && (*trying)->result.ok()) laid_ = (*trying)->result->laid;
    if (!stop->load() && *trying) emit done(std::make_shared<const Trying>(std::move(**trying)));
    next();
  });
  thread_->start(QThread::LowPriority);
}

}  // namespace armure
