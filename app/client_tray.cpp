#include "app/client_tray.h"

#include <QLabel>
#include <QVBoxLayout>

#include "measure/measure_table.h"

namespace armure {
namespace {

QString q(std::string_view s) { return QString::fromUtf8(s.data(), static_cast<qsizetype>(s.size())); }

// The level and working a measure belongs to, so that the table lights up what is being measured.
Selection selectionFor(std::string_view measure) {
  Selection s{.working = "measure." + std::string(measure)};
  if (measure == id::kUpperBust) s.level = "top";
  if (measure == id::kBust || measure == id::kShoulderToBust || measure == id::kBustSpan) s.level = "bust";
  if (measure == id::kUnderbust || measure == id::kShoulderToUnderbust) s.level = "underbust";
  if (measure == id::kWaist || measure == id::kShoulderToWaist || measure == id::kBackWaistLength) s.level = "waist";
  if (measure == id::kHighHip || measure == id::kWaistToHighHip) s.level = "high_hip";
  if (measure == id::kShoulderToChest) s.level = "chest";
  return s;
}

}  // namespace

ClientTray::ClientTray(OrderSession& session, QWidget* parent) : QWidget(parent), session_(session) {
  setObjectName("trayInside");
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(16, 14, 14, 14);
  column->setSpacing(3);
  layout_ = column;
  auto* heading = new QLabel("Client");
  heading->setObjectName("heading");
  column->addWidget(heading);
  textField("title", "Order", &Order::title);
  textField("client", "Client", &Order::client);
  textField("date", "Measured on", &Order::date);
  addMeasures("Girths, from the top down",
              {id::kUpperBust, id::kBust, id::kUnderbust, id::kWaist, id::kHighHip, id::kHip});
  addMeasures("Heights, down from the shoulder",
              {id::kShoulderToChest, id::kShoulderToBust, id::kShoulderToUnderbust, id::kShoulderToWaist,
               id::kBackWaistLength, id::kWaistToHighHip, id::kWaistToHip});
  addMeasures("Spans and arcs", {id::kBustSpan, id::kShoulderWidth, id::kFrontBustArc, id::kFrontUnderbustArc,
                                 id::kArmhole, id::kCupDown});
  addMeasures("The figure", {id::kStature});
  auto* notes = new QLabel("Notes");
  notes->setObjectName("group");
  column->addSpacing(8);
  column->addWidget(notes);
  textField("notes", "", &Order::notes);
  column->addStretch(1);
  connect(&session, &OrderSession::changed, this, &ClientTray::refresh);
  refresh();
}

QLineEdit* ClientTray::textField(const QString& name, const QString& label, std::string Order::*member) {
  auto* field = new QLineEdit;
  field->setObjectName(name);
  field->setAccessibleName(label.isEmpty() ? name : label);
  auto* row = new QWidget;
  auto* line = new QHBoxLayout(row);
  line->setContentsMargins(0, 1, 0, 1);
  if (!label.isEmpty()) {
    auto* text = new QLabel(label);
    text->setFixedWidth(88);
    line->addWidget(text);
  }
  line->addWidget(field, 1);
  static_cast<QVBoxLayout*>(layout_)->addWidget(row);
  connect(field, &QLineEdit::textEdited, this, [this, member, name](const QString& text) {
    session_.setText(member, text.toStdString(), name.toStdString());
  });
  connect(field, &QLineEdit::editingFinished, this, [this] { session_.settle(); });
  texts_.emplace_back(field, member);
  return field;
}

void ClientTray::addMeasures(const QString& group, const std::vector<std::string_view>& ids) {
  auto* column = static_cast<QVBoxLayout*>(layout_);
  auto* title = new QLabel(group);
  title->setObjectName("group");
  column->addSpacing(8);
  column->addWidget(title);
  for (std::string_view measure : ids) {
    const MeasureInfo& info = *findMeasure(measure);
    auto* row = new ValueRow(q(measure), q(info.name), q(info.how),
                             [this, measure](const std::string& text) { return session_.setMeasure(measure, text); });
    connect(row, &ValueRow::entered, this, [this, measure] { session_.select(selectionFor(measure)); });
    connect(row, &ValueRow::left, this, [this] { session_.settle(); });
    column->addWidget(row);
    rows_[std::string(measure)] = row;
  }
}

QString ClientTray::typedText(const TakenMeasure& m) const {
  const Unit unit = session_.order().units.unit;
  // As typed, when that is in the unit now shown; else converted.
  const size_t space = m.typed.find_last_of(' ');
  if (space != std::string::npos) {
    const auto own = parseUnit(m.typed.substr(space + 1));
    const auto mm = parseLength(m.typed, unit);
    if (own.ok() && own.value() == unit && mm.ok() && std::abs(mm.value() - m.mm) < 1e-6)
      return QString::fromStdString(m.typed.substr(0, space));
    if (own.ok() && own.value() != unit) return QString::fromStdString(formatLength(m.mm, {unit, 16}));
  }
  return QString::fromStdString(m.typed.empty() ? formatLength(m.mm, {unit, 16}) : m.typed);
}

void ClientTray::refresh() {
  if (!isVisible()) return;
  const Order& order = session_.order();
  for (const auto& [field, member] : texts_)
    if (const QString text = QString::fromStdString(order.*member); field->text() != text) field->setText(text);
  const Design* design = session_.problem() ? nullptr : session_.design();
  for (const auto& [measure, row] : rows_) {
    const auto taken = order.measures.all().find(measure);
    QString placeholder = findMeasure(measure)->need == Need::Required ? "needed" : "";
    if (design && design->body.has(measure) && design->body.fact(measure).source == Source::Estimated)
      placeholder =
          QStringLiteral("about ") + QString::fromStdString(formatLength(design->body.mm(measure), order.units));
    row->show(taken == order.measures.all().end() ? QString() : typedText(taken->second), placeholder, false);
    QString question;
    if (design)
      for (const Question& asked : design->questions)
        if (asked.measure == measure) question = QString::fromStdString(asked.text);
    row->setQuestion(question);
  }
}

}  // namespace armure
