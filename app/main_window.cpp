#include "app/main_window.h"

#include <QCloseEvent>
#include <QDir>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLineEdit>
#include <QMenu>
#include <QScreen>
#include <QScrollArea>
#include <QScrollBar>
#include <QShortcut>
#include <QTimer>
#include <QVBoxLayout>

#include "app/choice_access.h"
#include "app/cutting_table.h"
#include "app/style_sheet.h"
#include "app/tracing_dialog.h"
#include "app/words.h"
#include "io/atomic_file.h"
#include "io/dxf_reader.h"
#include "quotable.h"
#include "render/words.h"
#include "rules/rule_search.h"

namespace armure {
MainWindow::MainWindow(QWidget* parent) : QMainWindow(parent), records_(session_) {
  setWindowTitle("Armure");
  nameChoiceBoxes();
  resize(1280, 800);
  band_ = new MessageBand(session_);
  files_ = new OrderFiles(session_, *band_, *this);
  auto* ground = new QWidget;
  ground->setObjectName("ground");
  auto* rows = new QVBoxLayout(ground);
  rows->setContentsMargins(0, 0, 0, 0);
  rows->setSpacing(1);
  rows->addWidget(makeHeader());
  rows->addWidget(band_);
  auto* middle = new QHBoxLayout;
  middle->setSpacing(1);
  makeTrays();
  middle->addWidget(trays_);
  middle->addWidget(makeMiddle(), 1);
  middle->addWidget(makeColumn());
  rows->addLayout(middle, 1);
  rows->addWidget(makeFooter());
  setCentralWidget(ground);
  makeShortcuts();
  connect(&session_, &OrderSession::changed, this, &MainWindow::refresh);
  connect(stages_, &StageBar::stageChosen, this, &MainWindow::showStage);
  connect(table_, &TableView::zoomed, this, &MainWindow::refresh);
  connect(band_, &MessageBand::told, this, &MainWindow::refresh);
  connect(files_, &OrderFiles::opened, this, [this] {
    if (stages_->stage() == Stage::Client) client_->begin();
  });
  connect(files_, &OrderFiles::begun, this, [this] { client_->begin(); });
  connect(sheet_, &SheetPanel::rowChosen, this, [this] {
    if (table_->mode() == TableMode::OnTheBlock) table_->setMode(TableMode::Apart);
  });
  for (QLineEdit* field : findChildren<QLineEdit*>()) field->installEventFilter(this);
  setDark(false);
  session_.startNew(readPreferences().choicesOfNew());
  showStage(Stage::Client);
  refreshOpenSeam();
  client_->begin();
  refresh();
}

// What speaks to the session while it goes, goes first.
MainWindow::~MainWindow() {
  delete files_;
  delete takeCentralWidget();
}

void MainWindow::key(const QKeySequence& keys, const QString& what, const std::function<void()>& action) {
  connect(new QShortcut(keys, this), &QShortcut::activated, this, action);
  keys_.push_back({keys.toString(QKeySequence::NativeText), what});
}

// Each with what it does, which F1 lists. Single letters and figures work while no field is being typed in.
void MainWindow::makeShortcuts() {
  key(Qt::Key_F1, "This list of keys", [this] { KeysDialog(keys_, this).exec(); });
  key(QKeySequence::New, "A new order", [this] { files_->newOrder(); });
  key(QKeySequence::Open, "Open an order", [this] { files_->askOpen(); });
  key(Qt::CTRL | Qt::Key_L, "All orders of late, found by typing", [this] { files_->askRecent(); });
  key(QKeySequence::Save, "Save the order", [this] { files_->save(); });
  key(Qt::CTRL | Qt::SHIFT | Qt::Key_S, "Save it under another name", [this] { files_->askSaveAs(); });
  key(QKeySequence::Print, "Print at true size", [this] { files_->print(); });
  key(QKeySequence::Undo, "Take back, without end", [this] { session_.undo(); });
  key(QKeySequence::Redo, "Do again", [this] { session_.redo(); });
  key(QKeySequence::Find, "Find a choice by its name", [this] { findChoice(); });
  for (int i = 0; i < kStages; ++i)
    key(QKeySequence(Qt::ALT | static_cast<Qt::Key>(Qt::Key_1 + i)),
        QString("The stage %1").arg(q(stageName(static_cast<Stage>(i)))),
        [this, i] { stages_->setStage(static_cast<Stage>(i)); });
  constexpr const char* kModes[] = {"The pattern on the block", "The pieces apart", "The pieces taped"};
  for (int i = 0; i < 3; ++i)
    key(QKeySequence(static_cast<Qt::Key>(Qt::Key_1 + i)), kModes[i],
        [this, i] { table_->setMode(static_cast<TableMode>(i)); });
  makeShortcutsToPlaces();
  key(Qt::Key_U, "Inches or centimetres", [this] { toggleUnits(); });
  key(Qt::Key_D, "Light or dark", [this] { toggleDark(); });
}

void MainWindow::makeShortcutsToPlaces() {
  const std::tuple<Qt::Key, const char*, ClientPage> pages[] = {{Qt::Key_F, "The client's figure", ClientPage::Figure},
                                                                {Qt::Key_K, "The client book", ClientPage::Book},
                                                                {Qt::Key_W, "Two dates", ClientPage::TwoDates}};
  for (const auto& [letter, what, page] : pages)
    key(letter, what, [this, p = page] {
      stages_->setStage(Stage::Client);
      showTable(false);
      pages_->setPage(p);
    });
  key(Qt::Key_T, "To the table: the pattern, also of the client", [this] {
    showTable(true);
    table_->setFocus();
  });
  key(Qt::Key_R, "To the rails", [this] {
    stages_->setStage(Stage::Shape);
    rails().setFocus();
  });
  key(Qt::Key_S, "To the seam walker", [this] {
    stages_->setStage(Stage::Balance);
    walker().setFocus();
  });
  key(Qt::Key_B, "To the balance sheet, or the questions",
      [this] { lower_->currentIndex() == 0 ? sheet_->list()->setFocus() : findings_->setFocus(); });
  key(Qt::Key_P, "The cups on the body", [this] { showCups(); });
  key(Qt::Key_V, "The pattern tried on the body", [this] { showOnBody(true); });
  key(Qt::Key_Y, "The shelf of styles", [this] { showShelf(true); });
  key(Qt::Key_L, "The pieces on their cloths", [this] { showCloth(); });
}

// The field of the stage's tray; of the client's, which has none, that of the next.
void MainWindow::findChoice() {
  const auto stage = static_cast<size_t>(stages_->stage());
  if (stage == 0) stages_->setStage(Stage::Block);
  rulesTrays_[stage == 0 ? 0 : stage - 1]->finder()->field()->setFocus();
}

void MainWindow::showShelf(bool shown) {
  if (shown) stages_->setStage(Stage::Lines);
  middle_->setCurrentIndex(shown ? middle_->indexOf(shelf_) : 0);
  if (!shown) table_->setFocus();
}

void MainWindow::showCups() {
  stages_->setStage(Stage::Cups);
  middle_->setCurrentIndex(middle_->indexOf(onBody_));
  onBody_->setNear(true);
  onBody_->canvas().setFocus();
}

void MainWindow::showOnBody(bool shown) {
  if (shown && stages_->stage() < Stage::Balance) stages_->setStage(Stage::Balance);
  if (shown) onBody_->setNear(false);
  middle_->setCurrentIndex(shown ? middle_->indexOf(onBody_) : 0);
  if (shown) {
    onBody_->canvas().setFocus();
  } else {
    table_->setFocus();
  }
}

void MainWindow::showCloth() {
  stages_->setStage(Stage::Prepare);
  middle_->setCurrentIndex(middle_->indexOf(onCloth_));
  onCloth_->canvas().setFocus();
}

CuttingTable* MainWindow::showCuttingTable() {
  if (!session_.whole()) return nullptr;
  auto* table = new CuttingTable(*session_.whole(), session_.order(), this);
  table->setAttribute(Qt::WA_DeleteOnClose);
  table->setGeometry(screen()->geometry());  // without a window manager too
  table->showFullScreen();
  return table;
}

void MainWindow::showTable(bool shown) { middle_->setCurrentIndex(shown ? 0 : 1); }

void MainWindow::showShifts() {
  if (!session_.order().base) return;
  stages_->setStage(Stage::Fit);
  middle_->setCurrentIndex(middle_->indexOf(shifts_));
}

LaidVersion MainWindow::versionShown(Stage stage) const {
  return infoOf(stage).versions ? LaidVersion{alter_->version(), alter_->laidAt()} : LaidVersion{};
}

void MainWindow::showCut() {
  stages_->setStage(Stage::Prepare);
  constexpr int kLaidOutMs = 40;
  QTimer::singleShot(kLaidOutMs, cut_, [this] {
    if (auto* area = qobject_cast<QScrollArea*>(trays_->currentWidget()))
      area->verticalScrollBar()->setValue(cut_->y());
  });
}

void MainWindow::showRule(const std::string& key) {
  const RuleInfo& rule = *findRule(key);
  for (size_t i = 0; i < rulesTrays_.size(); ++i) {
    const auto stage = static_cast<Stage>(i + 1);
    if (rule.stage != stageName(stage)) continue;
    stages_->setStage(stage);
    QWidget* field = rulesTrays_[i]->fieldOf(key);
    const bool counts = ruleCounts(rule, [this](std::string_view other) { return session_.rule(other).choice; });
    if (!counts) {
      const Message text = msg("{} counts only with {}", known(rule.label), conditionOf(rule));
      return band_->tell(words(text, session_.order().units));
    }
    if (!field) return;
    rulesTrays_[i]->openGroupOf(rule);
    // Once the tray is laid out.
    constexpr int kLaidOutMs = 40;
    return QTimer::singleShot(kLaidOutMs, field, [field, area = qobject_cast<QScrollArea*>(trays_->currentWidget())] {
      if (area) area->ensureWidgetVisible(field);
      field->setFocus();
    });
  }
}

void MainWindow::showStage(Stage stage) {
  const bool client = stage == Stage::Client;
  const StageInfo& info = infoOf(stage);
  trays_->setCurrentIndex(static_cast<int>(stage));
  showTable(!client);
  toFigure_->setVisible(client);
  toCups_->setVisible(stage == Stage::Cups);
  toBody_->setVisible(stage >= Stage::Balance);
  lower_->setCurrentIndex(client ? 1 : 0);
  const bool reduces = stage == Stage::Block || stage == Stage::Shape;  // there the waist is closed
  column_->setSizes(reduces ? QList<int>{420, 290} : QList<int>{300, 410});
  session_.lookAsCut(info.paper);
  table_->setPaperShown(info.paper);
  workings_->setReductionChosen(reduces);
  railsStrip_->setVisible(info.strip == Strip::Rails);
  walkerStrip_->setVisible(info.strip == Strip::Walker);
  table_->setGuidesShown(info.guides);
  table_->setLinesShown(info.lines ? info.name : "");
  table_->setBalanceShown(info.moves);
  table_->setVersion(versionShown(stage));
  const std::string& shown = session_.selection().working;
  if (!client && (shown.empty() || shown.starts_with("measure.")) && session_.selection().seam.empty())
    session_.select({.working = "girth.waist", .level = "waist"});
  table_->setMode(info.mode);
}

// The button is there when pieces are taped, and for the seam that is selected.
void MainWindow::refreshOpenSeam() {
  openSeam_->setVisible(table_->mode() == TableMode::Taped);
  const std::string& seam = session_.selection().seam;
  const Seam* chosen = session_.design() ? session_.design()->pattern.seam(seam) : nullptr;
  const QString name = chosen ? words(chosen->name).toLower() : QString();
  openSeam_->setEnabled(!name.isEmpty());
  openSeam_->setChecked(!name.isEmpty() && table_->isOpen(seam));
  openSeam_->setText(name.isEmpty() ? "leave a seam open" : "leave the " + name + " open");
}

// There where left and right are not alike, and one of them is looked at.
void MainWindow::refreshSide() {
  const Design *whole = session_.whole(), *shown = session_.design();
  side_->setVisible(whole && !whole->halves.empty() && shown != whole);
  side_->setText(session_.side() == BodySide::Right ? "to the left half" : "to the right half");
}

void MainWindow::mend(const CheckRow& row) {
  switch (row.kind) {
    case CheckKind::Wish:
    case CheckKind::Stretch:
    case CheckKind::Seam:
    case CheckKind::Corner:
    case CheckKind::Join:
    case CheckKind::FreeEdge:
    case CheckKind::Layer:
    case CheckKind::Trim:
    case CheckKind::Girth:
      stages_->setStage(Stage::Balance);
      if (!session_.design()->balanced) {
        session_.setChoice("balance.keep", "balanced");
      } else if (!row.seam.empty()) {
        session_.letGive(row.seam);
      }
      return session_.settle();
    case CheckKind::Idle:
    case CheckKind::Facts:
      stages_->setStage(Stage::Client);
      return client_->goTo(row.level);
    case CheckKind::Intake:
    case CheckKind::Piece:
    case CheckKind::Curve:
    case CheckKind::Sides:
    case CheckKind::Body:
      break;
  }
  stages_->setStage(Stage::Shape);
  rails().setFocus();
  rails().stand(row.level.empty() ? "waist" : row.level, row.seam.empty() ? row.edge : row.seam);
}

TracingDialog* MainWindow::readDrawing(const QString& file) {
  const std::string path = file.toStdString();
  const Result<std::string> text = readFile(path);
  if (!text.ok()) return band_->tell(words(text.problem().line())), nullptr;
  Result<LineDrawing> drawing = parseDrawing(*text, quotable(path));
  if (!drawing.ok()) return band_->tell(words(drawing.problem().line())), nullptr;
  auto* session = new TracingSession(std::move(drawing).value(), path, *text);
  auto* dialog = new TracingDialog(*session, dark_ ? darkTheme() : lightTheme(), session_.order().units, this);
  session->setParent(dialog);
  dialog->setAttribute(Qt::WA_DeleteOnClose);
  connect(dialog, &QDialog::accepted, this, [this, dialog] { band_->tell("The base is kept: " + q(dialog->kept())); });
  dialog->open();
  return dialog;
}

void MainWindow::setDark(bool dark) {
  dark_ = dark;
  const Theme& theme = dark ? darkTheme() : lightTheme();
  setStyleSheet(themeStyleSheet(theme));
  for (QLineEdit* field : findChildren<QLineEdit*>()) {
    field->ensurePolished();  // when it is first shown the style would set the palette anew
    QPalette palette = field->palette();
    palette.setColor(QPalette::PlaceholderText, theme.secondInk);  // estimates and defaults are read, not decoration
    field->setPalette(palette);
  }
  stages_->setTheme(theme);
  table_->setTheme(theme);
  rails().setTheme(theme);
  walker().setTheme(theme);
  workings_->setTheme(theme);
  sheet_->setTheme(theme);
  depth_->setTheme(theme);
  shelf_->setTheme(theme);
  onBody_->setTheme(theme);
  shifts_->setTheme(theme);
  onCloth_->setTheme(theme);
  pages_->setTheme(theme);
  findings_->setTheme(theme);
  for (QPushButton* button : findChildren<QPushButton*>())
    if (button->accessibleName() == "dark") button->setText(dark ? "Dark" : "Light");
}

void MainWindow::refresh() {
  const Order& order = session_.order();
  const Design* design = session_.design();
  const QString name = order.title.empty() ? QString("Untitled order") : QString::fromStdString(order.title);
  title_->setText(QFontMetrics(uiFont(TextSize::Heading, true))
                      .elidedText(name, Qt::ElideRight, title_->parentWidget()->width() - 36));
  QStringList under;
  if (!order.client.empty()) under << QString::fromStdString(order.client);
  if (!order.date.empty()) under << "measured " + QString::fromStdString(order.date);
  subtitle_->setText(under.join(QStringLiteral(" · ")));
  units_->setText(order.units.unit == Unit::Inch
                      ? (order.units.inchFraction == 16 ? QStringLiteral("in ¹⁄₁₆") : QStringLiteral("in ⅛"))
                      : QStringLiteral("cm"));
  refreshSide();
  undo_->setEnabled(session_.canUndo());
  redo_->setEnabled(session_.canRedo());
  undo_->setToolTip(session_.canUndo() ? "Take back: " + QString::fromStdString(session_.undoName())
                                       : QString("Nothing to take back"));
  redo_->setToolTip(session_.canRedo() ? "Do again: " + QString::fromStdString(session_.redoName())
                                       : QString("Nothing to do again"));

  const QString fileName = QFileInfo(QString::fromStdString(session_.path())).fileName();
  const QString file = session_.isForReading() ? "open elsewhere, here to read: " + fileName
                       : session_.path().empty()
                           ? QString("not saved yet")
                           : (session_.isSaved() ? "saved in " : "changed since saved in ") + fileName;
  QString pieces = design ? QString(isSplit(design->pattern) ? " · %1 pieces" : " · %1 pieces a side")
                                .arg(design->pattern.shellPieces())
                          : QString();
  if (design && design->balanced)
    pieces += QStringLiteral(", balanced: an edge moved by %1 at most")
                  .arg(millimetres(design->balanced->certificate.largestAcross));
  else if (design)
    pieces += QStringLiteral(", as drafted");
  saved_->setText(file + pieces + QStringLiteral(" · 1 : %1").arg(table_->scaleDenominator(), 0, 'f', 1));
  int estimated = 0;
  size_t failing = 0;
  if (design) {
    for (const Fact& f : design->body.facts()) estimated += f.source == Source::Estimated ? 1 : 0;
    failing = design->sheet.failing();
  }
  facts_->setText(estimated > 0 ? (estimated == 1 ? QString("1 measure estimated")
                                                  : QString("%1 measures estimated").arg(estimated))
                                : QString());
  attention_->setText(design ? QString("%1 to mend").arg(failing) : QString());
  stages_->setAttention(Stage::Client, session_.problem().has_value() || session_.openQuestions() > 0);
  stages_->setAttention(Stage::Balance, failing > 0);
}

void MainWindow::tellFault(const QString& what) {
  keepWork();
  band_->tell("The program met something it did not expect (" + what +
              "). Your work is kept; take the last step back, and please keep the order file.");
}

// Undo belongs to the order, also while a field is being typed in: its own undo would end where the field was entered.
bool MainWindow::eventFilter(QObject* object, QEvent* event) {
  if (event->type() == QEvent::ShortcutOverride) {
    const auto* key = static_cast<QKeyEvent*>(event);
    if (key->matches(QKeySequence::Undo) || key->matches(QKeySequence::Redo)) {
      event->ignore();
      return true;
    }
  }
  return QMainWindow::eventFilter(object, event);
}

void MainWindow::recall(bool order) {
  Remembered& of = files_->remembered();
  files_->remember();
  if (const QByteArray geometry = of.window(); !geometry.isEmpty()) restoreGeometry(geometry);
  setDark(of.shade() == Shade::AsDesktop ? isDesktopDark() : of.shade() == Shade::Dark);
  if (session_.path().empty()) files_->begin();
  if (const QStringList recent = of.recent(); order && !recent.isEmpty()) openFile(recent.first());
}

void MainWindow::toggleDark() {
  setDark(!dark_);
  if (files_->remembers())
    files_->remembered().setShade(dark_ == isDesktopDark() ? Shade::AsDesktop : dark_ ? Shade::Dark : Shade::Light);
}

void MainWindow::toggleUnits() {
  session_.toggleUnits();
  if (files_->remembers()) files_->remembered().setUnits(session_.order().units.unit);
}

void MainWindow::closeEvent(QCloseEvent* event) {
  keepWork();  // unsaved work is offered at the next start
  if (files_->remembers()) files_->remembered().setWindow(saveGeometry());
  event->accept();
}

}  // namespace armure
