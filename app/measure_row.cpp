#include "app/measure_row.h"

#include <QHBoxLayout>
#include <QVBoxLayout>

#include "measure/takings.h"
#include "recalc/recalc.h"
#include "render/words.h"

namespace armure {
namespace {

QString questionText(const Question& question, LengthFormat units) {
  const QString text = words(question.text, units);
  switch (question.severity) {
    case Severity::Note:
      return "Note: " + text;
    case Severity::Question:
      return "Question: " + text;
    case Severity::Contradiction:
      break;
  }
  return "Contradiction: " + text;
}

QString shown(const MeasureInfo& info, double value, LengthFormat format) {
  return info.id == id::kWeight ? QString("%1 kg").arg(value, 0, 'g', 4)
                                : QString::fromStdString(formatLength(value, format));
}

}  // namespace

MeasureRow::MeasureRow(OrderSession& session, const MeasureInfo& info, QWidget* parent)
    : ValueRow(
          q(info.id), q(info.name), q(info.how),
          [&session, &info](const std::string& text) { return session.setMeasure(info.id, text); }, parent),
      session_(session),
      info_(info),
      takings_(new QWidget),
      spread_(new QLabel),
      use_(new QPushButton) {
  spread_->setObjectName("lesser");
  use_->setObjectName("small");
  use_->setAccessibleName(q(info.name) + ", which taking counts");
  use_->setToolTip("Which counts: the last taking, or the mean of all");
  auto* line = new QHBoxLayout(takings_);
  line->setContentsMargins(0, 0, 0, 2);
  line->addWidget(spread_, 1);
  line->addWidget(use_);
  static_cast<QVBoxLayout*>(layout())->insertWidget(1, takings_);
  takings_->hide();
  connect(use_, &QPushButton::clicked, this, [this] {
    const TakenMeasure* taken = session_.order().measures.find(info_.id);
    if (taken) session_.setUse(info_.id, taken->use == Use::Mean ? Use::Last : Use::Mean);
  });
}

void MeasureRow::refresh() {
  const Order& order = session_.order();
  const TakenMeasure* taken = order.measures.find(info_.id);
  QString text, placeholder;
  if (taken) {
    text = QString::fromStdString(fieldText(info_.id, *taken, order.units.unit));
  } else if (needs(order, info_)) {
    placeholder = "needed";
  } else if (order.measures.all().size() > 1) {
    const Fact fact = factOf(info_.id, order.measures);
    placeholder = QStringLiteral("%1 ± %2").arg(shown(info_, fact.mm, order.units),
                                                shown(info_, fact.spread, order.units).remove(" kg"));
  }
  show(text, placeholder, false);
  refreshTakings(taken);
  refreshQuestion();
}

void MeasureRow::refreshTakings(const TakenMeasure* taken) {
  const bool several = taken && !taken->takings.empty();
  takings_->setVisible(several);
  if (!several) return;
  const LengthFormat format{session_.order().units.unit, 16};
  spread_->setText(
      QString("taken %1 times, %2 apart").arg(taken->takings.size()).arg(shown(info_, takingSpread(*taken), format)));
  use_->setText(QString("%1: %2").arg(taken->use == Use::Mean ? "mean" : "last", shown(info_, taken->mm, format)));
}

void MeasureRow::refreshQuestion() {
  // The questions come most severe first; a contradiction stands at both its measures.
  for (const Question& question : session_.questions())
    if (question.measure == info_.id || question.other == info_.id)
      return setQuestion(questionText(question, session_.order().units), question.severity == Severity::Note);
  setQuestion({});
}

}  // namespace armure
