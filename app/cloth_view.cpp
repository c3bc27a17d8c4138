#include "app/cloth_view.h"

#include <QHBoxLayout>
#include <QVBoxLayout>
#include <map>

#include "app/client_pages.h"
#include "app/tray_parts.h"
#include "render/words.h"

namespace armure {
namespace {

constexpr double kLooksSeconds = 5, kLooksLonger = 20;  // s
constexpr int kChangeSettles = 250;                     // ms
constexpr const char* kClothHint =
    "Drag a piece: it lies where there is room, and is kept there. Double click lets it go.";

}  // namespace

ClothView::ClothView(OrderSession& session, QWidget* parent)
    : QWidget(parent), session_(session), canvas_(new ClothCanvas) {
  auto* rows = new QVBoxLayout(this);
  rows->setContentsMargins(0, 0, 0, 0);
  rows->setSpacing(0);
  rows->addWidget(makeHead());
  rows->addWidget(canvas_, 1);
  later_.setSingleShot(true);
  later_.setInterval(kChangeSettles);
  connect(&later_, &QTimer::timeout, this, [this] { look(kLooksSeconds); });
  connect(&session, &OrderSession::changed, this, [this] {
    if (isVisible()) refresh();
  });
  connect(&runner_, &LayingRunner::better, this, &ClothView::take);
  connect(&runner_, &LayingRunner::ended, this, &ClothView::tell);
  connect(canvas_, &ClothCanvas::laid, this, &ClothView::keep);
  connect(canvas_, &ClothCanvas::letGo, this, &ClothView::letGo);
  connect(canvas_, &ClothCanvas::left, this, &ClothView::left);
}

QWidget* ClothView::makeHead() {
  auto* head = new QWidget;
  head->setObjectName("paperPage");
  head->setAttribute(Qt::WA_StyledBackground);
  auto* column = new QVBoxLayout(head);
  column->setContentsMargins(12, 10, 12, 6);
  auto* line = new QHBoxLayout;
  line->setSpacing(6);
  box_ = trayBox("clothShown", "Cloth");
  box_->setMinimumWidth(200);
  line->addWidget(box_);
  look_ = pillButton("look longer", false);
  look_->setToolTip("Looks for a shorter layout; or stops, and keeps the best so far");
  line->addWidget(look_);
  line->addStretch(1);
  QPushButton* back = pillButton("table", false);
  back->setToolTip("Back to the table (Esc)");
  line->addWidget(back);
  column->addLayout(line);
  state_ = new QLabel;
  state_->setObjectName("clothState");
  state_->setWordWrap(true);
  column->addWidget(state_);
  auto* hint = new QLabel(kClothHint);
  hint->setObjectName("hint");
  column->addWidget(hint);
  connect(box_, &QComboBox::currentIndexChanged, this, &ClothView::take);
  connect(look_, &QPushButton::clicked, this, [this] { runner_.isBusy() ? runner_.stop() : look(kLooksLonger); });
  connect(back, &QPushButton::clicked, this, &ClothView::left);
  return head;
}

void ClothView::setTheme(const Theme& theme) { canvas_->setTheme(theme); }

size_t ClothView::cloth() const { return static_cast<size_t>(std::max(0, box_->currentIndex())); }

// The cloths of the order as it is now; layouts that still fit are begun with.
void ClothView::refresh() {
  const Design* design = session_.whole();
  if (!design || session_.problem()) return;
  std::vector<std::string> before;
  for (const ClothLaying& l : layings_) before.push_back(l.cloth.cloth);
  list_ = pieceList(design->pattern, design->rules);
  layings_ = clothLayings(design->pattern, design->cutOutlines, list_, design->rules.keptPlaces());
  placeLabels(design->pattern);
  std::vector<StripLayout> kept(layings_.size());
  std::vector<std::pair<QString, QString>> entries;
  for (size_t i = 0; i < layings_.size(); ++i) {
    const ClothLaying& l = layings_[i];
    entries.emplace_back(words(clothName(l.cloth.as)), q(l.cloth.cloth));
    for (size_t k = 0; k < before.size() && k < layouts_.size(); ++k)
      if (before[k] == l.cloth.cloth && layouts_[k].items.size() == l.items.size()) kept[i] = layouts_[k];
    for (size_t k = 0; k < kept[i].items.size(); ++k)
      if (const auto& locked = l.problem.items[k].locked) kept[i].items[k] = *locked;
    if (!l.unfit) kept[i].length = usedLength(l.problem, kept[i].items);
  }
  layouts_ = std::move(kept);
  refill(*box_, entries);
  take();
  later_.start();
}

// Where the number of each piece finds room, beside its grain; once for all copies.
void ClothView::placeLabels(const Pattern& pattern) {
  labels_.assign(layings_.size(), {});
  for (size_t i = 0; i < layings_.size(); ++i) {
    std::map<size_t, LabelPlace> found;  // by piece
    for (const ClothItem& item : layings_[i].items) {
      const Piece& piece = pattern.pieces[list_.pieces[item.piece].piece];
      if (!found.contains(item.piece))
        found[item.piece] = labelPlace(layings_[i].outlines[item.piece], {{{piece.grainTop, piece.grainBottom}}, {}},
                                       ClothCanvas::Shown::kLabel, ClothCanvas::Shown::kLabel);
      labels_[i].push_back(found[item.piece]);
    }
  }
}

void ClothView::look(double seconds) {
  later_.stop();
  runner_.start(layings_, layouts_, seconds);
  tell();
}

// What was found so far, shown; not while a piece is held over it.
void ClothView::take() {
  if (canvas_->isHeld()) return;
  if (!later_.isActive()) {
    const std::vector<StripLayout> found = runner_.layouts();
    for (size_t i = 0; i < found.size() && found.size() == layings_.size(); ++i)
      if (found[i].items.size() == layings_[i].items.size() && !found[i].items.empty()) layouts_[i] = found[i];
  }
  tell();
  const size_t i = cloth();
  const Design* design = session_.whole();
  if (i >= layings_.size() || !design) return canvas_->show(nullptr);
  auto shown = std::make_shared<ClothCanvas::Shown>();
  shown->laying = layings_[i];
  shown->layout = layings_[i].unfit ? StripLayout{} : layouts_[i];
  for (const ClothItem& item : layings_[i].items) {
    const Piece& piece = design->pattern.pieces[list_.pieces[item.piece].piece];
    shown->names.push_back(QString::number(piece.number));
    shown->grains.emplace_back(piece.grainTop, piece.grainBottom);
  }
  shown->labels = labels_[i];
  canvas_->show(std::move(shown));
}

void ClothView::tell() {
  look_->setText(runner_.isBusy() ? "stop" : "look longer");
  const size_t i = cloth();
  if (i >= layings_.size()) return state_->setText("Nothing is cut.");
  const ClothLaying& laying = layings_[i];
  const LengthFormat units = session_.order().units;
  if (laying.unfit) return state_->setText(q(laying.unfit->text()));
  if (layouts_[i].items.empty()) return state_->setText("Laying the pieces …");
  QString text = QString("%1 needed of %2 wide, %3; %4 % of it is cut")
                     .arg(q(formatLengthWithUnit(laying.needed(layouts_[i]), units)),
                          q(formatLengthWithUnit(laying.width, units)), laying.folded ? "folded" : "open")
                     .arg(100 * laying.utilisation(layouts_[i]), 0, 'f', 1);
  if (laying.cloth.as.folded && !laying.folded) text += "; laid open: a piece is wider than half of it";
  if (!laying.isEnough(layouts_[i])) text += "; more than there is of it";
  for (const auto& [place, reason] : laying.loosened) text += "; " + q(place.piece) + " is not kept: " + words(reason);
  if (runner_.isBusy()) text += QString("; looking, %1 %").arg(100 * runner_.progress(), 0, 'f', 0);
  state_->setText(text + ".");
}

void ClothView::keep(size_t item, const LaidItem& place) {
  const KeptPlace kept = layings_[cloth()].keptAt(list_, item, place);
  layouts_[cloth()].items[item] = place;
  if (const auto problem = session_.setChoice(keptPlaceKey(kept), kept.text())) emit refused(q(problem->text()));
  session_.settle();
}

void ClothView::letGo(size_t item) {
  const KeptPlace kept = layings_[cloth()].keptAt(list_, item, layouts_[cloth()].items[item]);
  session_.setChoice(keptPlaceKey(kept), "");
  session_.settle();
}

}  // namespace armure
