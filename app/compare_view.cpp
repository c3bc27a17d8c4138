#include "app/compare_view.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QVBoxLayout>

#include "app/choice_box.h"
#include "measure/compare_sets.h"
#include "measure/measure_table.h"
#include "render/words.h"

namespace armure {
namespace {

constexpr const char* kThisOrder = "order";  // data of the choice that stands for the measures of the order

QString shown(const std::string& id, std::optional<double> value, LengthFormat format) {
  if (!value) return QStringLiteral("–");
  return id == id::kWeight ? QString("%1 kg").arg(*value, 0, 'g', 4)
                           : QString::fromStdString(formatLength(*value, {format.unit, 16}));
}

QString shownChange(const std::string& id, double change, LengthFormat format) {
  const QString sign = change > 0 ? "+" : change < 0 ? QStringLiteral("−") : "";
  return sign + shown(id, std::abs(change), format);
}

}  // namespace

CompareView::CompareView(ClientRecords& records, OrderSession& session, QWidget* parent)
    : QWidget(parent),
      records_(records),
      session_(session),
      theme_(&lightTheme()),
      name_(new QLabel),
      summary_(new QLabel),
      first_(new ChoiceBox),
      second_(new ChoiceBox),
      table_(new QTableWidget) {
  setObjectName("paperPage");
  setAttribute(Qt::WA_StyledBackground);
  name_->setObjectName("heading");
  summary_->setObjectName("lesser");
  summary_->setWordWrap(true);
  first_->setObjectName("firstDate");
  second_->setObjectName("secondDate");
  first_->setAccessibleName("First date");
  second_->setAccessibleName("Second date");
  table_->setObjectName("compared");
  table_->setAccessibleName("Measures compared");
  table_->setColumnCount(4);
  table_->horizontalHeader()->setAccessibleName("Columns of the measures compared");
  table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
  table_->setSelectionBehavior(QAbstractItemView::SelectRows);
  table_->setShowGrid(false);
  table_->verticalHeader()->hide();
  table_->verticalHeader()->setDefaultSectionSize(23);
  table_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
  table_->horizontalHeader()->setHighlightSections(false);
  for (int column : {1, 2, 3}) table_->setColumnWidth(column, 116);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(24, 8, 24, 16);
  column->setSpacing(6);
  column->addWidget(name_);
  auto* dates = new QHBoxLayout;
  dates->addWidget(new QLabel("From"));
  dates->addWidget(first_, 1);
  dates->addWidget(new QLabel("to"));
  dates->addWidget(second_, 1);
  column->addLayout(dates);
  column->addWidget(summary_);
  column->addWidget(table_, 1);
  for (QComboBox* box : {first_, second_})
    connect(box, &QComboBox::currentIndexChanged, this, &CompareView::refreshRows);
  connect(&records, &ClientRecords::changed, this, &CompareView::refresh);
  connect(&session, &OrderSession::changed, this, &CompareView::refreshRows);
}

void CompareView::setTheme(const Theme& theme) {
  theme_ = &theme;
  refreshRows();
}

void CompareView::compare(const std::string& client, const std::string& set) {
  client_ = client;
  refresh();
  const int at = second_->findData(q(set));
  if (at < 0) return;
  second_->setCurrentIndex(at);
  first_->setCurrentIndex(at + 1 < first_->count() ? at + 1 : std::max(0, at - 1));
}

void CompareView::refresh() {
  if (!isVisible()) return;
  if (client_.empty()) client_ = session_.order().book.client;
  std::string name = session_.order().client;
  for (const ClientEntry& entry : records_.clients()) {
    if (client_.empty() && entry.name == name) client_ = entry.id;
    if (entry.id == client_) name = entry.name;
  }
  name_->setText(q(name.empty() ? "Two dates" : name));
  const std::vector<SetEntry> sets = client_.empty() ? std::vector<SetEntry>{} : records_.sets(client_);
  for (QComboBox* box : {first_, second_}) {
    const QSignalBlocker quiet(box);
    const QVariant before = box->currentData();
    box->clear();
    // Newest first, as in the book; the order itself is the newest of all.
    box->addItem("this order", kThisOrder);
    for (const SetEntry& set : sets) box->addItem(set.date.empty() ? "no date" : q(set.date), q(set.id));
    const int kept = before.isValid() ? box->findData(before) : -1;
    box->setCurrentIndex(kept >= 0       ? kept
                         : box == first_ ? std::min(box->count() - 1, 2)
                                         : std::min(box->count() - 1, 1));
  }
  refreshRows();
}

std::optional<MeasureSet> CompareView::chosen(const QComboBox* box) {
  const QString key = box->currentData().toString();
  if (key.isEmpty()) return std::nullopt;
  return key == kThisOrder ? std::optional(session_.order().measures) : records_.measures(key.toStdString());
}

void CompareView::refreshRows() {
  if (!isVisible()) return;
  const auto first = chosen(first_), second = chosen(second_);
  const std::vector<Compared> rows = first && second ? compareSets(*first, *second) : std::vector<Compared>{};
  table_->setHorizontalHeaderLabels({"measure", first_->currentText(), second_->currentText(), "change"});
  table_->horizontalHeaderItem(0)->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
  for (int column : {1, 2, 3})
    table_->horizontalHeaderItem(column)->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
  table_->setRowCount(static_cast<int>(rows.size()));
  int marked = 0;
  for (size_t i = 0; i < rows.size(); ++i) {
    fillRow(static_cast<int>(i), rows[i]);
    marked += rows[i].isMarked() ? 1 : 0;
  }
  summary_->setText(rows.empty() ? "There are no measures to compare yet."
                                 : QString("%1 of %2 measures changed by more than two takings of one measure differ; "
                                           "they stand in bold.")
                                       .arg(marked)
                                       .arg(rows.size()));
}

void CompareView::fillRow(int row, const Compared& compared) {
  const LengthFormat format = session_.order().units;
  const MeasureInfo* info = findMeasure(compared.id);
  const auto change = compared.change();
  const QString texts[] = {info ? q(info->name) : q(compared.id), shown(compared.id, compared.first, format),
                           shown(compared.id, compared.second, format),
                           change ? shownChange(compared.id, *change, format) : QStringLiteral("–")};
  for (int column = 0; column < 4; ++column) {
    auto* item = new QTableWidgetItem(texts[column]);
    item->setTextAlignment((column == 0 ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignVCenter);
    item->setForeground(column == 3 && compared.isMarked() ? theme_->attention : theme_->ink);
    item->setFont(uiFont(TextSize::Body, compared.isMarked()));
    table_->setItem(row, column, item);
  }
}

}  // namespace armure
