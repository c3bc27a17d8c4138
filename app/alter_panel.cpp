#include "app/alter_panel.h"

#include <QDate>
#include <QFileDialog>
#include <QFileInfo>
#include <algorithm>
#include <filesystem>

#include "alter/carry.h"
#include "alter/proposal.h"
#include "app/fit_panel.h"
#include "app/tray_parts.h"
#include "io/base_file.h"
#include "order/free_id.h"
#include "recalc/bases.h"
#include "render/words.h"

namespace armure {
namespace {

// Versions that can be laid over the pieces.
constexpr const char *kNone = "", *kProposal = "proposal", *kUnaltered = "unaltered", *kBase = "base",
                     *kSaved = "saved", *kOther = "other", *kRevision = "revision";
constexpr size_t kMostTold = 12;  // differences

}  // namespace

AlterPanel::AlterPanel(OrderSession& session, FitPanel& fit, QWidget* parent)
    : QWidget(parent), session_(session), fit_(fit), column_(new QVBoxLayout(this)) {
  column_->setContentsMargins(0, 4, 0, 0);
  column_->setSpacing(3);
  addAlterations();
  addEarlier();
  addVersions();
  addBase();
  connect(&session, &OrderSession::changed, this, &AlterPanel::refresh);
  connect(&fit, &FitPanel::proposalChanged, this, &AlterPanel::refreshVersion);
}

void AlterPanel::addAlterations() {
  addTrayTitle(*column_, "Alterations of this pattern");
  alterations_ = new GrowingList;
  alterations_->setObjectName("alterations");
  alterations_->setAccessibleName("Alterations of this pattern");
  column_->addWidget(alterations_);
  connect(alterations_, &QListWidget::itemChanged, this,
          [this](QListWidgetItem* item) { setOn(alterations_->row(item), item->checkState() == Qt::Checked); });
  connect(alterations_, &QListWidget::currentRowChanged, this, [this](int row) { remove_->setEnabled(row >= 0); });
  remove_ = new QPushButton("Take this alteration away");
  remove_->setObjectName("removeAlteration");
  connect(remove_, &QPushButton::clicked, this, &AlterPanel::remove);
  column_->addWidget(remove_);
}

void AlterPanel::addEarlier() {
  earlierTitle_ = addTrayTitle(*column_, "Corrections of her earlier orders");
  earlier_ = trayBox("earlier", "Corrections of her earlier orders");
  takeEarlier_ = new QPushButton("Alter this pattern so, too");
  takeEarlier_->setObjectName("takeEarlier");
  connect(takeEarlier_, &QPushButton::clicked, this, &AlterPanel::takeEarlier);
  column_->addWidget(earlier_);
  column_->addWidget(takeEarlier_);
}

// What came of fittings of this client's other orders in the folder. They are read again when order or client change.
void AlterPanel::refreshEarlier() {
  const Order& order = session_.order();
  const std::string looked = session_.path() + "\n" + order.client;
  if (looked != lookedIn_) {
    lookedIn_ = looked;
    offered_.clear();
    earlier_->clear();
    const std::filesystem::path here(session_.path());
    std::error_code error;
    if (!here.empty() && !order.client.empty())
      for (const auto& entry : std::filesystem::directory_iterator(here.parent_path(), error)) {
        if (entry.path().extension() != ".armure" || entry.path().filename() == here.filename()) continue;
        const Result<OrderFile> file = readOrder(entry.path());
        if (!file.ok() || file->order.client != order.client) continue;
        for (const Alteration& a : file->order.alterations)
          if (a.on && !a.fitting.empty()) offered_.emplace_back(file->order, a);
      }
    for (const auto& [from, a] : offered_) earlier_->addItem(q(from.title) + ": " + q(a.name));
  }
  for (QWidget* w :
       {static_cast<QWidget*>(earlierTitle_), static_cast<QWidget*>(earlier_), static_cast<QWidget*>(takeEarlier_)})
    w->setVisible(!offered_.empty());
}

void AlterPanel::takeEarlier() {
  const auto i = static_cast<size_t>(std::max(0, earlier_->currentIndex()));
  if (i >= offered_.size()) return;
  const auto& [from, alteration] = offered_[i];
  const std::shared_ptr<const Pattern> was = patternOf(from);
  if (!was) return emit refused("The earlier order cannot be drafted any more.");
  Order next = session_.order();
  Alteration a = carriedTo(alteration, *was, session_.design()->pattern);
  a.id = freeId(next.alterations);
  a.name = from.title + ": " + alteration.name;
  a.fitting.clear();
  next.alterations.push_back(std::move(a));
  change(std::move(next), "correction of an earlier order");
}

void AlterPanel::keepState() {
  const Order& order = session_.order();
  const std::string date = QDate::currentDate().toString(Qt::ISODate).toStdString();
  change(withRevision(order, "state " + std::to_string(order.revisions.size() + 1), date), "state kept");
}

void AlterPanel::takeUpRevision() {
  const QString id = versions_->currentData().toString();
  const auto i = static_cast<size_t>(id.mid(QString(kRevision).size()).toUInt());
  if (!id.startsWith(kRevision) || i >= session_.order().revisions.size()) return;
  change(takenUp(session_.order(), session_.order().revisions[i]), "an earlier state taken up again");
}

void AlterPanel::addVersions() {
  addTrayTitle(*column_, "Laid over the pieces");
  versions_ = trayBox("version", "Laid over the pieces");
  connect(versions_, &QComboBox::activated, this, [this] {
    if (versions_->currentData().toString() == kOther && !other_) askOther();
    refreshVersion();
  });
  laidAt_ = trayBox("laidAt", "Laid on each other at");
  connect(laidAt_, &QComboBox::activated, this, &AlterPanel::refreshVersion);
  summary_ = new QLabel;
  summary_->setObjectName("lesser");
  summary_->setWordWrap(true);
  differences_ = new GrowingList;
  differences_->setObjectName("differences");
  differences_->setAccessibleName("What differs");
  const auto show = [this](QListWidgetItem* item) {
    const auto i = static_cast<size_t>(differences_->row(item));
    const Design* d = session_.design();
    if (d && i < found_.size())
      session_.select({.piece = d->pattern.pieces[found_[i].piece].id, .edge = found_[i].edge});
  };
  connect(differences_, &QListWidget::itemClicked, this, show);
  connect(differences_, &QListWidget::itemActivated, this, show);
  for (QWidget* w : {static_cast<QWidget*>(versions_), static_cast<QWidget*>(laidAt_), static_cast<QWidget*>(summary_),
                     static_cast<QWidget*>(differences_)})
    column_->addWidget(w);
  keepState_ = new QPushButton("Keep this state of the order");
  keepState_->setObjectName("keepState");
  connect(keepState_, &QPushButton::clicked, this, &AlterPanel::keepState);
  takeUp_ = new QPushButton("Take up that state again");
  takeUp_->setObjectName("takeUpState");
  connect(takeUp_, &QPushButton::clicked, this, &AlterPanel::takeUpRevision);
  column_->addWidget(takeUp_);
  column_->addWidget(keepState_);
}

void AlterPanel::addBase() {
  addTrayTitle(*column_, "Base pattern");
  base_ = new QLabel;
  base_->setObjectName("baseName");
  base_->setWordWrap(true);
  column_->addWidget(base_);
  const auto button = [&](const char* name, const char* text, auto method) {
    auto* made = new QPushButton(text);
    made->setObjectName(name);
    connect(made, &QPushButton::clicked, this, method);
    column_->addWidget(made);
    return made;
  };
  shifts_ = button("shiftTable", "The table of shifts", [this] { emit tableWanted(); });
  recalculate_ = button("recalculate", "Recalculate a base for this client …", &AlterPanel::recalculate);
  keep_ = button("keepBase", "Keep this pattern as a base", &AlterPanel::keep);
  button("drawingBase", "Read a base from a drawing …", &AlterPanel::chooseDrawing);
}

void AlterPanel::change(Order next, const char* name) {
  if (const auto problem = session_.step(std::move(next), name))
    emit refused(words(problem->line(), session_.order().units));
}

void AlterPanel::setOn(int row, bool on) {
  Order next = session_.order();
  const auto i = static_cast<size_t>(row);
  if (i >= next.alterations.size() || next.alterations[i].on == on) return;
  next.alterations[i].on = on;
  change(std::move(next), on ? "alteration switched on" : "alteration switched off");
}

void AlterPanel::remove() {
  const int row = alterations_->currentRow();
  Order next = session_.order();
  if (row < 0 || static_cast<size_t>(row) >= next.alterations.size()) return;
  next.alterations.erase(next.alterations.begin() + row);
  change(std::move(next), "alteration taken away");
}

void AlterPanel::keep() {
  const std::string name = session_.order().title.empty() ? "Base" : session_.order().title;
  Result<BasePattern> base =
      keptAsBase(session_.order(), {}, name, QDate::currentDate().toString(Qt::ISODate).toStdString());
  if (!base.ok()) return emit refused(words(base.problem().line(), session_.order().units));
  std::error_code error;
  std::filesystem::create_directories(baseFolder(), error);
  const std::filesystem::path path = newBasePath(baseFolder(), name);
  if (const auto problem = writeBase(path, BaseFile{std::move(base).value(), {}, {}}))
    return emit refused(words(problem->line(), session_.order().units));
  emit refused(QString("Kept as a base: %1").arg(QString::fromStdString(path.string())));
}

void AlterPanel::recalculate() {
  const QString path =
      QFileDialog::getOpenFileName(window(), "Base pattern", QString::fromStdString(baseFolder().string()),
                                   "Base patterns (*.armure-base);;All files (*)");
  if (path.isEmpty()) return;
  const Result<BaseFile> file = readBase(std::filesystem::path(path.toStdString()));
  if (!file.ok()) return emit refused(words(file.problem().line(), session_.order().units));
  const Order made = orderFromBase(file->base, session_.order().measures);
  Order next = session_.order();
  next.base = made.base;
  next.style = made.style;
  next.school = made.school;
  next.choices = made.choices;
  change(std::move(next), "recalculated from a base");
}

void AlterPanel::chooseDrawing() {
  const QString path = QFileDialog::getOpenFileName(window(), "Drawing", {}, "Drawings (*.svg *.dxf);;All files (*)");
  if (!path.isEmpty()) emit drawingChosen(path);
}

void AlterPanel::askOther() {
  const QString path = QFileDialog::getOpenFileName(window(), "Another order", {}, "Orders (*.armure);;All files (*)");
  if (path.isEmpty()) return;
  const Result<OrderFile> file = readOrder(std::filesystem::path(path.toStdString()));
  if (!file.ok()) return emit refused(words(file.problem().line(), session_.order().units));
  other_ = file->order;
  otherName_ = QFileInfo(path).fileName();
}

std::shared_ptr<const Pattern> AlterPanel::patternOf(Order order) const {
  Result<Design> made = recalc(order);
  return made.ok() ? std::make_shared<const Pattern>(made->half(session_.side()).pattern) : nullptr;
}

// "SEAM/upper" and "SEAM/lower" are the ends of a seam, all else levels.
LaidAt AlterPanel::laidAt() const {
  const QString place = laidAt_->currentData().toString();
  const auto slash = place.lastIndexOf('/');
  if (slash < 0) return {place.toStdString()};
  return {std::string(level::kWaist), place.left(slash).toStdString(), place.endsWith("/upper")};
}

void AlterPanel::refreshPlaces(const Pattern& pattern) {
  const bool first = laidAt_->count() == 0;
  std::vector<std::pair<QString, QString>> places;
  for (const PatternLevel& l : pattern.levels)
    places.emplace_back("at the " + words(l.name).toLower(), QString::fromStdString(l.id));
  for (const Seam& s : pattern.seams)
    if (pattern.pieces[s.a.piece].layer == "shell" && s.kind != SeamKind::Dart)
      for (const bool upper : {true, false})
        places.emplace_back(words(s.name).toLower() + (upper ? ", upper end" : ", lower end"),
                            QString::fromStdString(s.id) + (upper ? "/upper" : "/lower"));
  refill(*laidAt_, places);
  if (first) laidAt_->setCurrentIndex(std::max(0, laidAt_->findData(q(level::kWaist))));
}

void AlterPanel::refreshAlterations() {
  const QSignalBlocker quiet(alterations_);
  const LengthFormat units{session_.order().units.unit, 16};
  const int row = alterations_->currentRow();
  alterations_->clear();
  for (const Alteration& a : session_.order().alterations) {
    QStringList what;
    for (const Message& m : shiftWords(session_.design()->pattern, a)) what << words(m, units);
    auto* item = new QListWidgetItem(q(a.name) + (what.isEmpty() ? QString() : "\n" + what.join("\n")), alterations_);
    item->setFlags(item->flags() | Qt::ItemIsUserCheckable);
    item->setCheckState(a.on ? Qt::Checked : Qt::Unchecked);
    for (const IdleShift& idle : session_.design()->idleShifts)
      if (idle.alteration == a.id) item->setText(item->text() + "\nNot done: " + words(idle.what, units));
  }
  alterations_->setCurrentRow(std::min(row, alterations_->count() - 1));
  remove_->setEnabled(alterations_->currentRow() >= 0);
  alterations_->grow();
}

void AlterPanel::refreshBase() {
  const auto& base = session_.order().base;
  base_->setText(
      base ? QString("Recalculated from %1%2")
                 .arg(q(base->base.name), base->base.date.empty() ? QString() : ", kept " + q(base->base.date))
           : QString("Drafted from the client's measures, not from a base."));
  shifts_->setVisible(base.has_value());
}

void AlterPanel::refreshVersion() {
  if (!isVisible() || !session_.design()) return;
  const Design& d = *session_.design();
  const Order& order = session_.order();
  std::vector<std::pair<QString, QString>> entries{{"nothing", kNone}};
  if (fit_.proposed()) entries.emplace_back("the proposal", kProposal);
  if (!order.alterations.empty()) entries.emplace_back("before its alterations", kUnaltered);
  if (order.base) entries.emplace_back("the base", kBase);
  if (!session_.path().empty()) entries.emplace_back("as it was saved", kSaved);
  for (size_t i = 0; i < order.revisions.size(); ++i)
    entries.emplace_back(QString("%1, %2").arg(q(order.revisions[i].name), q(order.revisions[i].date)),
                         QString(kRevision) + QString::number(i));
  entries.emplace_back(other_ ? otherName_ : QString("another order …"), kOther);
  const QString chosen = versions_->count() ? versions_->currentData().toString() : QString(kProposal);
  versions_->clear();
  for (const auto& [text, id] : entries) versions_->addItem(text, id);
  // A proposal is shown as soon as there is one, and what it was before once it is taken.
  int at = versions_->findData(chosen);
  if (chosen == kNone || at < 0) at = std::max(0, versions_->findData(kProposal));
  if (chosen == kProposal && !fit_.proposed()) at = std::max(0, versions_->findData(kUnaltered));
  versions_->setCurrentIndex(at);
  const QString now = versions_->currentData().toString();
  version_.reset();
  if (now == kProposal) version_ = fit_.proposed();
  Order earlier = order;
  if (now == kUnaltered) {
    earlier.alterations.clear();
    version_ = patternOf(earlier);
  } else if (now == kBase) {
    earlier.measures = earlier.base->base.measures;
    earlier.base.reset();
    version_ = patternOf(earlier);
  } else if (now == kSaved) {
    version_ = patternOf(session_.savedOrder());
  } else if (now == kOther && other_) {
    version_ = patternOf(*other_);
  } else if (now.startsWith(kRevision)) {
    version_ = patternOf(*order.revisions[now.mid(QString(kRevision).size()).toUInt()].order);
  }
  takeUp_->setVisible(now.startsWith(kRevision));
  refreshPlaces(d.pattern);
  laidAt_->setVisible(version_ != nullptr);
  const LengthFormat units{order.units.unit, 32};
  found_ = version_ ? differences(d.pattern, *version_, laidAt()) : std::vector<EdgeDifference>{};
  differences_->clear();
  for (size_t i = 0; i < found_.size() && i < kMostTold; ++i) {
    const EdgeDifference& e = found_[i];
    differences_->addItem(QString("%1, %2: %3%4")
                              .arg(words(d.pattern.pieces[e.piece].name), q(e.edge).replace('-', ' '),
                                   QString::fromStdString(formatLengthWithUnit(e.largest, units)),
                                   std::abs(e.longer) < 0.5
                                       ? QString()
                                       : ", " + QString::fromStdString(formatDifference(e.longer, units)) + " long"));
  }
  summary_->setVisible(version_ != nullptr);
  summary_->setText(found_.empty()
                        ? QString("No edge differs by more than 0.1 mm.")
                        : QString("%1 edges differ; the dashed line is the other version.").arg(found_.size()));
  differences_->setVisible(!found_.empty());
  differences_->grow();
  emit versionChanged();
}

void AlterPanel::refresh() {
  if (!isVisible() || !session_.design()) return;
  refreshAlterations();
  refreshEarlier();
  refreshBase();
}

}  // namespace armure
