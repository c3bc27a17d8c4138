// The parts of the main window: header, band, trays, middle, column, footer. What they do is in main_window.cpp.
#include <QButtonGroup>
#include <QHBoxLayout>
#include <QMenu>
#include <QScrollArea>
#include <QVBoxLayout>

#include "app/balance_panel.h"
#include "app/cup_depth_panel.h"
#include "app/main_window.h"
#include "app/printed_pieces.h"
#include "app/rules_tray.h"
#include "app/style_shelf.h"
#include "app/trims_panel.h"
#include "render/words.h"

namespace armure {
namespace {

constexpr int kTrayWidth = 300, kColumnWidth = 340;

QScrollArea* scrolled(QWidget* inside, const QString& name) {
  auto* area = new QScrollArea;
  area->setObjectName(name);
  area->setWidget(inside);
  area->setWidgetResizable(true);
  area->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  area->setFocusPolicy(Qt::NoFocus);
  return area;
}

}  // namespace

QPushButton* MainWindow::plainButton(const QString& name, const QString& text, const QString& hint,
                                     std::function<void()> action) {
  auto* button = new QPushButton(text);
  button->setObjectName("plain");
  button->setAccessibleName(name);
  button->setToolTip(hint);
  if (action) connect(button, &QPushButton::clicked, this, std::move(action));
  return button;
}

QWidget* MainWindow::makeHeader() {
  auto* header = new QWidget;
  header->setObjectName("header");
  header->setFixedHeight(58);
  auto* line = new QHBoxLayout(header);
  line->setContentsMargins(14, 4, 14, 4);
  line->setSpacing(8);
  auto* names = new QVBoxLayout;
  names->setSpacing(0);
  title_ = new QPushButton;
  title_->setObjectName("plain");
  title_->setAccessibleName("Order");
  title_->setToolTip("The orders of late");
  title_->setStyleSheet("text-align: left; font-weight: bold; font-size: 15px; padding: 2px 4px;");
  title_->setMenu(new QMenu(title_));
  connect(title_->menu(), &QMenu::aboutToShow, files_, [this] { files_->fillMenu(*title_->menu()); });
  subtitle_ = new QLabel;
  subtitle_->setObjectName("lesser");
  subtitle_->setTextFormat(Qt::PlainText);
  subtitle_->setContentsMargins(5, 0, 0, 0);
  names->addWidget(title_);
  names->addWidget(subtitle_);
  auto* nameBox = new QWidget;
  nameBox->setFixedWidth(kTrayWidth - 24);
  nameBox->setLayout(names);
  names->setContentsMargins(0, 4, 0, 4);
  line->addWidget(nameBox);
  stages_ = new StageBar;
  line->addWidget(stages_, 1);
  line->addSpacing(4);
  line->addWidget(plainButton("open", "Open", "Open an order (Ctrl+O)", [this] { files_->askOpen(); }));
  line->addWidget(plainButton("save", "Save", "Save the order (Ctrl+S)", [this] { files_->save(); }));
  undo_ = plainButton("undo", "Undo", "", nullptr);
  redo_ = plainButton("redo", "Redo", "", nullptr);
  connect(undo_, &QPushButton::clicked, &session_, &OrderSession::undo);
  connect(redo_, &QPushButton::clicked, &session_, &OrderSession::redo);
  line->addWidget(undo_);
  line->addWidget(redo_);
  units_ = plainButton("units", "in", "Inches or centimetres (U)", nullptr);
  connect(units_, &QPushButton::clicked, this, &MainWindow::toggleUnits);
  line->addWidget(units_);
  line->addWidget(plainButton("dark", "Light", "Light or dark (D)", [this] { toggleDark(); }));
  return header;
}

void MainWindow::makeTrays() {
  trays_ = new QStackedWidget;
  trays_->setFixedWidth(kTrayWidth);
  client_ = new ClientTray(session_, records_);
  trays_->addWidget(scrolled(client_, "tray"));
  for (Stage stage :
       {Stage::Block, Stage::Shape, Stage::Cups, Stage::Lines, Stage::Balance, Stage::Prepare, Stage::Fit}) {
    auto* tray = new RulesTray(session_, stage);
    connect(tray, &RulesTray::ruleWanted, this, [this](const QString& key) { showRule(key.toStdString()); });
    if (stage == Stage::Cups) tray->column()->addWidget(depth_ = new CupDepthPanel(session_));
    if (stage == Stage::Lines) {
      connect(tray, &RulesTray::shelfWanted, this, [this] { showShelf(true); });
      auto* trims = new TrimsPanel(session_);
      connect(trims, &TrimsPanel::refused, band_, [this](const QString& why) { band_->tell(why); });
      tray->column()->addWidget(trims);
    }
    if (stage == Stage::Balance) tray->column()->addWidget(new BalancePanel(session_));
    if (stage == Stage::Prepare) {
      cut_ = new CutPanel(session_);
      connect(cut_, &CutPanel::refused, band_, [this](const QString& why) { band_->tell(why); });
      tray->column()->addWidget(cut_);
      tray->column()->addWidget(makePrepareTools());
    }
    if (stage == Stage::Fit) {
      tray->column()->addWidget(fit_ = new FitPanel(session_));
      tray->column()->addWidget(alter_ = new AlterPanel(session_, *fit_));
      connect(fit_, &FitPanel::refused, band_, [this](const QString& why) { band_->tell(why); });
      connect(alter_, &AlterPanel::refused, band_, [this](const QString& why) { band_->tell(why); });
      connect(alter_, &AlterPanel::tableWanted, this, &MainWindow::showShifts);
      connect(alter_, &AlterPanel::drawingChosen, this, &MainWindow::readDrawing);
    }
    tray->column()->addStretch(1);
    trays_->addWidget(scrolled(tray, "tray"));
    rulesTrays_.push_back(tray);
  }
}

QWidget* MainWindow::makePrepareTools() {
  auto* box = new QWidget;
  auto* column = new QVBoxLayout(box);
  column->setContentsMargins(0, 10, 0, 0);
  column->setSpacing(4);
  auto* title = new QLabel("On paper and in files");
  title->setObjectName("group");
  column->addWidget(title);
  column->addWidget(new PrintedPieces(session_));
  const auto add = [&](const QString& name, const QString& text, auto&& action) {
    auto* button = new QPushButton(text + QStringLiteral(" …"));
    button->setObjectName(name);
    connect(button, &QPushButton::clicked, this, action);
    column->addWidget(button);
  };
  add("layOnCloth", "Lay on cloth", [this] { showCloth(); });
  add("cuttingTable", "Project on the cutting table", [this] { showCuttingTable(); });
  add("print", "Print at true size", [this] { files_->print(); });
  for (const Exporter& e : exporterTable())
    add(QString::fromUtf8(e.id.data(), static_cast<qsizetype>(e.id.size())),
        QString::fromUtf8(e.label.data(), static_cast<qsizetype>(e.label.size())), [this, &e] { files_->exportAs(e); });
  return box;
}

QWidget* MainWindow::makeMiddle() {
  middle_ = new QStackedWidget;
  pages_ = new ClientPages(session_, records_);
  auto* work = new QWidget;
  auto* rows = new QVBoxLayout(work);
  rows->setContentsMargins(0, 0, 0, 0);
  rows->setSpacing(1);
  rows->addWidget(makeTable(), 1);
  rows->addWidget(railsStrip_ = new RailsStrip(session_));
  rows->addWidget(walkerStrip_ = new WalkerStrip(session_));
  connect(&rails(), &RailsView::refused, band_, [this](const QString& why) { band_->tell(why); });
  connect(table_, &TableView::refused, band_, [this](const QString& why) { band_->tell(why); });
  connect(&walker(), &SeamWalker::fingersChanged, table_, &TableView::setFingers);
  middle_->addWidget(work);
  middle_->addWidget(pages_);
  shelf_ = new StyleShelf(session_);
  middle_->addWidget(shelf_);
  connect(shelf_, &StyleShelf::left, this, [this] { showShelf(false); });
  onBody_ = new BodyView(session_);
  middle_->addWidget(onBody_);
  connect(onBody_, &BodyView::left, this, [this] { showOnBody(false); });
  onCloth_ = new ClothView(session_);
  middle_->addWidget(onCloth_);
  connect(onCloth_, &ClothView::left, this, [this] {
    showTable(true);
    table_->setFocus();
  });
  connect(onCloth_, &ClothView::refused, band_, [this](const QString& why) { band_->tell(why); });
  shifts_ = new ShiftView(session_);
  middle_->addWidget(shifts_);
  connect(shifts_, &ShiftView::left, this, [this] { showTable(true); });
  connect(shifts_, &ShiftView::refused, band_, [this](const QString& why) { band_->tell(why); });
  connect(alter_, &AlterPanel::versionChanged, this, [this] { table_->setVersion(versionShown(stages_->stage())); });
  connect(pages_, &ClientPages::patternWanted, this, [this] { showTable(true); });
  connect(pages_, &ClientPages::measureChosen, this, [this](const std::string& id) { client_->goTo(id); });
  connect(&records_, &ClientRecords::failed, band_, [this](const Problem& problem) { band_->tell(problem); });
  return middle_;
}

QWidget* MainWindow::makeTable() {
  table_ = new TableView(session_);
  auto* overlay = new QHBoxLayout(table_);
  overlay->setContentsMargins(12, 10, 12, 10);
  overlay->setAlignment(Qt::AlignTop | Qt::AlignRight);
  overlay->setSpacing(4);
  toFigure_ = pillButton("figure", false);
  overlay->addWidget(toFigure_);
  connect(toFigure_, &QPushButton::clicked, this, [this] { showTable(false); });
  toCups_ = pillButton("the cups on the body", false);
  toCups_->setToolTip("The bodice sewn and tried on, seen near the cups (P)");
  overlay->addWidget(toCups_);
  connect(toCups_, &QPushButton::clicked, this, &MainWindow::showCups);
  toBody_ = pillButton("on the body", false);
  toBody_->setToolTip("The balanced pieces sewn and tried on (V)");
  overlay->addWidget(toBody_);
  connect(toBody_, &QPushButton::clicked, this, [this] { showOnBody(true); });
  side_ = pillButton("to the right half", false);
  side_->setToolTip("Left and right are not alike; one of them is shown (H on the table)");
  side_->hide();
  overlay->addWidget(side_);
  connect(side_, &QPushButton::clicked, this,
          [this] { session_.lookAt(session_.side() == BodySide::Right ? BodySide::Left : BodySide::Right); });
  combs_ = pillButton("combs");
  combs_->setToolTip("How strongly every edge is bent (C on the table)");
  overlay->addWidget(combs_);
  openSeam_ = pillButton("leave a seam open");
  openSeam_->setToolTip("Choose a seam; it is not taped then (O on the table)");
  overlay->addWidget(openSeam_);
  connect(openSeam_, &QPushButton::clicked, this, [this] { table_->toggleOpen(session_.selection().seam); });
  overlay->addSpacing(10);
  connect(combs_, &QPushButton::toggled, table_, &TableView::setCombs);
  connect(table_, &TableView::combsChanged, this, [this] { combs_->setChecked(table_->combs()); });
  auto* group = new QButtonGroup(this);
  const std::pair<const char*, TableMode> modes[] = {
      {"on the block", TableMode::OnTheBlock}, {"apart", TableMode::Apart}, {"taped", TableMode::Taped}};
  for (const auto& [text, mode] : modes) {
    QPushButton* pill = pillButton(text);
    group->addButton(pill);
    overlay->addWidget(pill);
    pills_.push_back(pill);
    connect(pill, &QPushButton::clicked, this, [this, m = mode] { table_->setMode(m); });
  }
  pills_.front()->setChecked(true);
  connect(table_, &TableView::modeChanged, this,
          [this] { pills_[static_cast<size_t>(table_->mode())]->setChecked(true); });
  connect(table_, &TableView::modeChanged, this, &MainWindow::refreshOpenSeam);
  connect(&session_, &OrderSession::selectionChanged, this, &MainWindow::refreshOpenSeam);
  return table_;
}

QWidget* MainWindow::makeColumn() {
  workings_ = new WorkingsPanel(session_);
  sheet_ = new SheetPanel(session_);
  findings_ = new FindingsPanel(session_);
  connect(findings_, &FindingsPanel::measureChosen, this, [this](const std::string& id) { client_->goTo(id); });
  connect(sheet_, &SheetPanel::mendWanted, this, &MainWindow::mend);
  lower_ = new QStackedWidget;
  lower_->addWidget(sheet_);
  lower_->addWidget(scrolled(findings_, "column"));
  column_ = new QSplitter(Qt::Vertical);
  column_->setObjectName("column");
  column_->setFixedWidth(kColumnWidth);
  column_->setChildrenCollapsible(false);
  column_->setHandleWidth(1);
  column_->addWidget(scrolled(workings_, "column"));
  column_->addWidget(lower_);
  return column_;
}

QWidget* MainWindow::makeFooter() {
  auto* footer = new QWidget;
  footer->setObjectName("footer");
  footer->setFixedHeight(28);
  auto* line = new QHBoxLayout(footer);
  line->setContentsMargins(18, 0, 18, 0);
  saved_ = new QLabel;
  saved_->setObjectName("lesser");
  facts_ = new QLabel;
  facts_->setObjectName("wrong");
  attention_ = plainButton("attention", "", "The balance sheet (B)", nullptr);
  connect(attention_, &QPushButton::clicked, this, [this] {
    if (stages_->stage() == Stage::Client) stages_->setStage(Stage::Block);
    sheet_->list()->setFocus();
  });
  line->addWidget(saved_);
  line->addStretch(1);
  line->addWidget(facts_);
  line->addSpacing(12);
  line->addWidget(attention_);
  return footer;
}

}  // namespace armure
