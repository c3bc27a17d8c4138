#include "app/client_tray.h"

#include <fmt/format.h>

#include <QLabel>
#include <QScrollArea>
#include <algorithm>

#include "measure/measure_table.h"
#include "render/words.h"

namespace armure {
namespace {

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

ClientTray::ClientTray(OrderSession& session, ClientRecords& records, QWidget* parent)
    : QWidget(parent),
      session_(session),
      records_(records),
      column_(new QVBoxLayout(this)),
      tape_(new TapeStrip(session)),
      record_(new QLabel),
      keep_(new QPushButton("Keep")) {
  setObjectName("trayInside");
  column_->setContentsMargins(16, 14, 14, 14);
  column_->setSpacing(3);
  auto* heading = new QLabel("Client");
  heading->setObjectName("heading");
  column_->addWidget(heading);
  addTexts();
  addRecord();
  column_->addWidget(tape_);
  addMeasures();
  auto* notes = new QLabel("Notes");
  notes->setObjectName("group");
  column_->addSpacing(8);
  column_->addWidget(notes);
  textField("notes", "", &Order::notes);
  column_->addStretch(1);
  connect(tape_, &TapeStrip::reading, this, &ClientTray::takeReading);
  connect(&session, &OrderSession::changed, this, &ClientTray::refresh);
  connect(&records, &ClientRecords::changed, this, [this] {
    recordStale_ = true;
    refresh();
  });
  refresh();
}

void ClientTray::addTexts() {
  textField("title", "Order", &Order::title);
  textField("client", "Client", &Order::client);
  textField("date", "Measured on", &Order::date);
}

void ClientTray::addRecord() {
  record_->setObjectName("recordState");
  keep_->setObjectName("small");
  keep_->setAccessibleName("Keep in the client book");
  keep_->setToolTip("Keeps name, date and measures in the client book: another date is another set");
  connect(keep_, &QPushButton::clicked, &records_, &ClientRecords::keep);
  auto* line = new QHBoxLayout;
  line->setContentsMargins(0, 4, 0, 0);
  line->addWidget(record_, 1);
  line->addWidget(keep_);
  column_->addLayout(line);
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
  column_->addWidget(row);
  connect(field, &QLineEdit::textEdited, this, [this, member, name](const QString& text) {
    session_.setText(member, text.toStdString(), name.toStdString());
  });
  connect(field, &QLineEdit::editingFinished, this, [this] { session_.settle(); });
  connect(field, &QLineEdit::returnPressed, this, [this, field] {
    const auto next = std::find_if(texts_.begin(), texts_.end(), [&](const auto& t) { return t.first == field; }) + 1;
    if (field->objectName() == "date" || next == texts_.end()) return goTo(rows_.front()->info().id);
    next->first->setFocus();
    next->first->selectAll();
  });
  texts_.emplace_back(field, member);
  return field;
}

void ClientTray::addMeasures() {
  const MeasureInfo* before = nullptr;
  for (const MeasureInfo* info : measuresInTapeOrder()) {
    if (!before || before->group != info->group) {
      auto* title = new QLabel(q(groupTitle(info->group)));
      title->setObjectName("group");
      column_->addSpacing(8);
      column_->addWidget(title);
    }
    before = info;
    auto* row = new MeasureRow(session_, *info);
    const size_t at = rows_.size();
    connect(row, &ValueRow::entered, this, [this, at] { enter(at); });
    connect(row, &ValueRow::left, this, [this] { session_.settle(); });
    connect(row, &MeasureRow::stepped, this, [this, at](bool forward) { stepFrom(at, forward); });
    column_->addWidget(row);
    rows_.push_back(row);
  }
}

void ClientTray::enter(size_t row) {
  current_ = row;
  session_.select(selectionFor(rows_[row]->info().id));
}

void ClientTray::stepFrom(size_t row, bool forward) {
  if (forward && row + 1 < rows_.size()) return goTo(rows_[row + 1]->info().id);
  if (!forward && row > 0) return goTo(rows_[row - 1]->info().id);
}

void ClientTray::begin() {
  if (session_.order().measures.all().empty()) return texts_.front().first->setFocus();
  goTo(rows_.front()->info().id);
}

void ClientTray::goTo(std::string_view measure) {
  for (size_t i = 0; i < rows_.size(); ++i) {
    MeasureRow* row = rows_[i];
    if (row->info().id != measure) continue;
    for (QWidget* above = parentWidget(); above; above = above->parentWidget())
      if (auto* area = qobject_cast<QScrollArea*>(above)) area->ensureWidgetVisible(row, 0, 90);
    row->field()->setFocus(Qt::TabFocusReason);
    row->field()->selectAll();
    enter(i);
  }
}

// A reading goes where one stands, and one goes on; what cannot be that measure is said and one stays.
void ClientTray::takeReading(double mm) {
  const MeasureInfo& info = rows_[current_]->info();
  if (info.id == id::kWeight) return tape_->say("The weight is not taken with the tape; go to a length");
  const Taking taking{mm, fmt::format("{:.1f} mm", mm)};
  if (const auto problem = session_.addTaking(info.id, taking)) {
    goTo(info.id);
    return tape_->say(words(msg("{}; {}", problem->what, problem->remedy), session_.order().units));
  }
  if (current_ + 1 < rows_.size()) goTo(rows_[current_ + 1]->info().id);
}

void ClientTray::refresh() {
  if (!isVisible()) return;
  const Order& order = session_.order();
  for (const auto& [field, member] : texts_)
    if (const QString text = QString::fromStdString(order.*member); field->text() != text) field->setText(text);
  for (MeasureRow* row : rows_) row->refresh();
  refreshRecord();
}

void ClientTray::refreshRecord() {
  const Order& order = session_.order();
  const bool same =
      order.measures == recordShown_.measures && order.book == recordShown_.book && order.date == recordShown_.date;
  if (same && !recordStale_) return;
  recordShown_ = order;
  recordStale_ = false;
  // Asked once: it reads the book, and this stands in the path of every key typed.
  const ClientRecords::Standing standing = records_.standing();
  switch (standing) {
    case ClientRecords::Standing::NotInBook:
      record_->setText("Not in the client book");
      break;
    case ClientRecords::Standing::AsInBook:
      record_->setText("As in the client book");
      break;
    case ClientRecords::Standing::Changed:
      record_->setText("Not as in the client book");
      break;
  }
  keep_->setVisible(standing != ClientRecords::Standing::AsInBook);
}

}  // namespace armure
