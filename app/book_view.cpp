#include "app/book_view.h"

#include <QFileDialog>
#include <QHBoxLayout>
#include <QVBoxLayout>

#include "app/choice_box.h"
#include "measure/standard_sizes.h"
#include "render/words.h"

namespace armure {
namespace {

QLabel* titled(const QString& text, const char* role) {
  auto* label = new QLabel(text);
  label->setObjectName(role);
  return label;
}

}  // namespace

BookView::BookView(ClientRecords& records, OrderSession& session, QWidget* parent)
    : QWidget(parent),
      records_(records),
      session_(session),
      clients_(new QListWidget),
      sets_(new QListWidget),
      empty_(
          new QLabel("No client is in the book yet. Take the measures, give the client a name, and press Keep on the "
                     "left. The book stays on this computer.")),
      standard_(new ChoiceBox) {
  setObjectName("paperPage");
  setAttribute(Qt::WA_StyledBackground);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(24, 8, 24, 16);
  column->setSpacing(8);
  column->addWidget(titled("Client book", "heading"));
  empty_->setObjectName("lesser");
  empty_->setWordWrap(true);
  column->addWidget(empty_);
  column->addWidget(makeLists(), 1);
  column->addWidget(makeStandard());
  connect(clients_, &QListWidget::currentRowChanged, this, &BookView::refreshSets);
  connect(clients_, &QListWidget::itemChanged, this, [this](QListWidgetItem* item) {
    const std::string name = item->text().trimmed().toStdString();
    const ClientEntry& entry = clientRows_.at(static_cast<size_t>(clients_->row(item)));
    if (name.empty() || name == entry.name) return refresh();
    records_.rename(entry.id, name);
  });
  connect(sets_, &QListWidget::currentRowChanged, this, &BookView::refreshButtons);
  connect(sets_, &QListWidget::itemActivated, use_, &QPushButton::click);
  connect(&records, &ClientRecords::changed, this, &BookView::refresh);
  connect(&session, &OrderSession::changed, this, &BookView::refreshButtons);
  refresh();
}

QPushButton* BookView::button(const QString& name, const QString& text) {
  auto* made = new QPushButton(text);
  made->setObjectName(name);
  return made;
}

QWidget* BookView::makeLists() {
  auto* box = new QWidget;
  auto* line = new QHBoxLayout(box);
  line->setContentsMargins(0, 0, 0, 0);
  line->setSpacing(20);
  auto* left = new QVBoxLayout;
  left->setSpacing(6);
  clients_->setObjectName("clients");
  clients_->setAccessibleName("Clients");
  left->addWidget(titled("Clients", "group"));
  left->addWidget(clients_, 1);
  left->addWidget(deleteClient_ = button("deleteClient", "Delete client"));
  line->addLayout(left, 5);
  auto* right = new QVBoxLayout;
  right->setSpacing(6);
  sets_->setObjectName("sets");
  sets_->setAccessibleName("Measures, by date");
  right->addWidget(titled("Measures, by date", "group"));
  right->addWidget(sets_, 1);
  right->addWidget(use_ = button("useSet", "Use in this order"));
  right->addWidget(compare_ = button("compareSet", "Compare with another date"));
  right->addWidget(export_ = button("exportSet", "Export as CSV …"));
  right->addWidget(deleteSet_ = button("deleteSet", "Delete these measures"));
  line->addLayout(right, 6);
  connect(use_, &QPushButton::clicked, this, [this] {
    if (client() && set()) records_.use(*client(), *set());
  });
  connect(compare_, &QPushButton::clicked, this, [this] {
    if (client() && set()) emit compareWanted(client()->id, set()->id);
  });
  connect(export_, &QPushButton::clicked, this, &BookView::exportChosen);
  connect(deleteSet_, &QPushButton::clicked, this, [this] {
    if (set()) deleteWith(deleteSet_, q(set()->date), [this, id = set()->id] { records_.deleteSet(id); });
  });
  connect(deleteClient_, &QPushButton::clicked, this, [this] {
    if (client())
      deleteWith(deleteClient_, q(client()->name), [this, id = client()->id] { records_.deleteClient(id); });
  });
  return box;
}

QWidget* BookView::makeStandard() {
  auto* box = new QWidget;
  auto* line = new QHBoxLayout(box);
  line->setContentsMargins(0, 4, 0, 0);
  standard_->setObjectName("standardSize");
  standard_->setAccessibleName("Standard size");
  for (const StandardSize& size : standardSizes()) standard_->addItem(words(standardSizeName(size)));
  standard_->setCurrentIndex(4);
  auto* start = button("useStandard", "Start from this size");
  start->setToolTip("Girths of EN 13402-3, from memory; everything else is estimated");
  line->addWidget(new QLabel("Standard size"));
  line->addWidget(standard_, 1);
  line->addWidget(start);
  connect(start, &QPushButton::clicked, this, [this] {
    const StandardSize& size = standardSizes()[static_cast<size_t>(std::max(0, standard_->currentIndex()))];
    session_.takeMeasures(standardMeasures(size), english(msg("Standard size, {}", standardSizeName(size))), "", {});
  });
  return box;
}

const ClientEntry* BookView::client() const {
  const int row = clients_->currentRow();
  return row >= 0 && row < static_cast<int>(clientRows_.size()) ? &clientRows_[static_cast<size_t>(row)] : nullptr;
}

const SetEntry* BookView::set() const {
  const int row = sets_->currentRow();
  return row >= 0 && row < static_cast<int>(setRows_.size()) ? &setRows_[static_cast<size_t>(row)] : nullptr;
}

void BookView::refresh() {
  if (!isVisible()) return;
  const std::string before = client() ? client()->id : session_.order().book.client;
  clientRows_ = records_.clients();
  const QSignalBlocker quiet(clients_);
  clients_->clear();
  int row = clientRows_.empty() ? -1 : 0;
  for (const ClientEntry& entry : clientRows_) {
    if (entry.id == before) row = clients_->count();
    auto* item = new QListWidgetItem(q(entry.name), clients_);
    item->setFlags(item->flags() | Qt::ItemIsEditable);
    item->setToolTip(QString("%1 sets of measures; F2 or a double click renames").arg(entry.sets));
  }
  clients_->setCurrentRow(row);
  empty_->setVisible(clientRows_.empty());
  refreshSets();
}

void BookView::refreshSets() {
  disarm();
  const std::string before = set() ? set()->id : session_.order().book.set;
  setRows_ = client() ? records_.sets(client()->id) : std::vector<SetEntry>{};
  const QSignalBlocker quiet(sets_);
  sets_->clear();
  int row = setRows_.empty() ? -1 : 0;
  for (const SetEntry& entry : setRows_) {
    if (entry.id == before) row = sets_->count();
    const QString here = entry.id == session_.order().book.set ? QString(", in this order") : QString();
    sets_->addItem(
        QString("%1: %2 measures%3").arg(entry.date.empty() ? "no date" : q(entry.date)).arg(entry.measures).arg(here));
  }
  sets_->setCurrentRow(row);
  refreshButtons();
}

void BookView::refreshButtons() {
  if (!isVisible()) return;
  disarm();
  deleteClient_->setEnabled(client() != nullptr);
  for (QPushButton* one : {use_, compare_, export_, deleteSet_}) one->setEnabled(set() != nullptr);
}

void BookView::deleteWith(QPushButton* pressed, const QString& what, const std::function<void()>& doIt) {
  if (armed_ == pressed) {
    disarm();
    doIt();
    return;
  }
  disarm();
  armed_ = pressed;
  pressed->setText(QString("Press again: %1 goes for good").arg(what));
}

void BookView::disarm() {
  armed_ = nullptr;
  deleteSet_->setText("Delete these measures");
  deleteClient_->setText("Delete client");
}

void BookView::exportChosen() {
  if (!client() || !set()) return;
  const QString file = QFileDialog::getSaveFileName(this, "Export measures", q(client()->name) + ".csv", "*.csv");
  if (!file.isEmpty()) records_.exportSet(*client(), *set(), file.toStdString());
}

}  // namespace armure
