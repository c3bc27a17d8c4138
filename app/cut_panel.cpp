#include "app/cut_panel.h"

#include <QHBoxLayout>
#include <algorithm>

#include "app/tray_parts.h"
#include "layers/recipe.h"
#include "parts/bones/bones.h"
#include "render/words.h"
#include "rules/prepare_rules.h"

namespace armure {
namespace {

constexpr int kMostOwn = 9;  // bones by hand on one piece

QString layerName(const LayerRecipe* recipe) { return recipe ? q(recipe->name) : QStringLiteral("Shell"); }

void fill(QComboBox& box, const std::vector<ListedCloth>& cloths) {
  if (box.count() == static_cast<int>(cloths.size())) {
    bool same = true;
    for (int i = 0; i < box.count(); ++i) same = same && box.itemText(i) == q(cloths[static_cast<size_t>(i)].name);
    if (same) return;
  }
  box.clear();
  for (const ListedCloth& c : cloths) {
    box.addItem(q(c.name), q(c.id));
    box.setItemData(box.count() - 1, q(c.note), Qt::ToolTipRole);
  }
}

}  // namespace

CutPanel::CutPanel(OrderSession& session, QWidget* parent)
    : QWidget(parent), session_(session), column_(new QVBoxLayout(this)) {
  column_->setContentsMargins(0, 8, 0, 0);
  column_->setSpacing(3);
  addLayers();
  addCloths();
  addOwnCloth();
  addBones();
  connect(&session, &OrderSession::changed, this, &CutPanel::refresh);
  connect(&session, &OrderSession::selectionChanged, this, &CutPanel::refresh);
}

void CutPanel::addLayers() {
  addTrayTitle(*column_, "Layers, from the outside inwards");
  layers_ = new QListWidget;
  layers_->setObjectName("layers");
  layers_->setAccessibleName("Layers, from the outside inwards");
  layers_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  layers_->setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  column_->addWidget(layers_);
  auto* row = new QWidget;
  auto* line = new QHBoxLayout(row);
  line->setContentsMargins(0, 1, 0, 1);
  const auto add = [&](const char* name, const char* text, int by) {
    auto* button = new QPushButton(text);
    button->setObjectName(name);
    connect(button, &QPushButton::clicked, this, [this, by] { moveLayer(by); });
    line->addWidget(button);
    return button;
  };
  outwards_ = add("layerOut", "Further out", -1);
  inwards_ = add("layerIn", "Further in", 1);
  column_->addWidget(row);
  connect(layers_, &QListWidget::currentRowChanged, this, [this](int at) {
    outwards_->setEnabled(at > 0);
    inwards_->setEnabled(at >= 0 && at + 1 < layers_->count());
  });
}

void CutPanel::addCloths() {
  addTrayTitle(*column_, "Cut of");
  clothRows_ = new QVBoxLayout;
  clothRows_->setSpacing(2);
  column_->addLayout(clothRows_);
}

ChoiceBox* CutPanel::clothBox(const std::string& layerOrPiece) {
  if (const auto found = cloths_.find(layerOrPiece); found != cloths_.end()) return found->second.second;
  const LayerRecipe* recipe = findLayer(layerOrPiece);
  QString text = recipe ? layerName(recipe) : q(layerOrPiece).replace('-', ' ');
  text[0] = text[0].toUpper();
  ChoiceBox* box = trayBox(q("cloth.of." + layerOrPiece), text + ": cloth");
  connect(box, &QComboBox::activated, this,
          [this, box, layerOrPiece] { chooseCloth(layerOrPiece, box->currentData().toString().toStdString()); });
  QWidget* row = trayRow(text, box, 1.5);
  clothRows_->addWidget(row);
  cloths_[layerOrPiece] = {row, box};
  return box;
}

void CutPanel::addOwnCloth() {
  addTrayTitle(*column_, "Cloths");
  clothEdited_ = trayBox("clothEdited", "Cloth");
  connect(clothEdited_, &QComboBox::activated, this, [this] { refresh(); });
  column_->addWidget(clothEdited_);
  const auto field = [&](const char* name, const char* label, const char* hint) {
    auto* row = new ValueRow(QString("clothEdited.") + name, label, hint, [this, name](const std::string& text) {
      return session_.setChoice("cloth." + ownCloth() + "." + name, text);
    });
    connect(row, &ValueRow::left, this, [this] { session_.settle(); });
    column_->addWidget(row);
    return row;
  };
  clothName_ = field("name", "Name", "as you call it");
  clothWidth_ = field("width", "Wide", "from selvedge to selvedge");
  const auto options = [&](const char* name, const char* label, const char* a, const char* b) {
    ChoiceBox* box = trayBox(QString("clothEdited.") + name, label);
    box->addItem(QString(a).replace('-', ' '), a);
    box->addItem(QString(b).replace('-', ' '), b);
    connect(box, &QComboBox::activated, this, [this, box, name] {
      choose("cloth." + ownCloth() + "." + name, box->currentData().toString().toStdString());
    });
    column_->addWidget(trayRow(label, box, 1.5));
    return box;
  };
  clothLies_ = options("lies", "Lies", "folded", "open");
  clothWay_ = options("way", "Pieces lie", "either-way", "one-way");
  clothShrinks_ = field("shrinks", "Shrinks by", "part of its length: 0.03 is 3 in a hundred");
  clothPrice_ = field("price", "Price of a metre", "in whatever you pay");
  clothApart_ = field("apart", "Left between pieces", "none: they share a cut");
  clothOffGrain_ = field("off-grain", "Off the grain", "how many degrees pieces may be turned off it");
  clothRemnant_ =
      field("remnant", "A remnant", "its corners in turn, along it and across: 0 x 0; 40 x 0; 40 x 22; 0 x 30");
  clothNote_ = field("note", "Note", "in your own words");
  auto* another = new QPushButton("Another cloth");
  another->setObjectName("anotherCloth");
  connect(another, &QPushButton::clicked, this, [this] {
    const std::vector<ListedCloth>& all = session_.design()->rules.cloths();
    int number = 1;
    const auto id = [&] { return "own-" + std::to_string(number); };
    while (std::ranges::find(all, id(), &ListedCloth::id) != all.end()) ++number;
    choose("cloth." + id() + ".name", "Cloth of my own " + std::to_string(number));
    clothEdited_->setCurrentIndex(clothEdited_->findData(QString::fromStdString(id())));
    refresh();
  });
  column_->addWidget(another);
}

void CutPanel::addBones() {
  addTrayTitle(*column_, "Bones by hand");
  boneHint_ = new QLabel;
  boneHint_->setObjectName("lesser");
  boneHint_->setWordWrap(true);
  column_->addWidget(boneHint_);
  place_ = new QPushButton("Put a bone here");
  place_->setObjectName("placeBone");
  remove_ = new QPushButton("Take this bone away");
  remove_->setObjectName("removeBone");
  connect(place_, &QPushButton::clicked, this, &CutPanel::placeBone);
  connect(remove_, &QPushButton::clicked, this, &CutPanel::removeBone);
  column_->addWidget(place_);
  column_->addWidget(remove_);
}

void CutPanel::choose(const std::string& key, const std::string& value) {
  if (const auto problem = session_.tryChoice(key, value)) emit refused(QString::fromStdString(problem->text()));
  session_.settle();
}

void CutPanel::chooseCloth(const std::string& layerOrPiece, const std::string& cloth) {
  choose(clothOfKey(layerOrPiece), cloth);
}

void CutPanel::moveLayer(int by) {
  const int at = layers_->currentRow(), to = at + by;
  if (at < 0 || to < 0 || to >= layers_->count()) return;
  QStringList ids;
  for (int i = 0; i < layers_->count(); ++i) ids << layers_->item(i)->data(Qt::UserRole).toString();
  ids.swapItemsAt(at, to);
  choose(std::string(kLayersOrder), ids.join(' ').toStdString());
  layers_->setCurrentRow(to);
}

void CutPanel::placeBone() {
  const Design* d = session_.design();
  if (!d) return;
  const auto picked = std::ranges::find(d->pattern.pieces, session_.selection().piece, &Piece::id);
  if (picked == d->pattern.pieces.end()) return;
  const std::string& piece = chosenAs(*picked);
  const std::map<int, double> own = d->rules.bonesAt(piece);
  for (int number = 1; number <= kMostOwn; ++number)
    if (!own.contains(number)) return choose(boneAtKey(piece, number), "0.5");
}

void CutPanel::removeBone() {
  const std::string& bone = session_.selection().working;
  const Design* d = session_.design();
  if (!d || !isBoneId(bone)) return;
  const std::vector<Channel> channels = channelsOf(d->pattern, d->block, d->rules);
  const auto picked = std::ranges::find(channels, bone, &Channel::id);
  if (picked == channels.end()) return;
  for (const Piece& p : d->pattern.pieces)
    for (const auto& [number, part] : d->rules.bonesAt(chosenAs(p)))
      if (picked->chosenAs == "bone-" + chosenAs(p) + "-own-" + std::to_string(number))
        return choose(boneAtKey(chosenAs(p), number), "");
  choose(boneOffKey(picked->chosenAs), "yes");
}

void CutPanel::refreshLayers() {
  const std::vector<const LayerRecipe*> all = layersOf(session_.design()->rules);
  QStringList ids;
  for (const LayerRecipe* r : all) ids << (r ? q(r->id) : QStringLiteral("shell"));
  QStringList shown;
  for (int i = 0; i < layers_->count(); ++i) shown << layers_->item(i)->data(Qt::UserRole).toString();
  if (shown == ids) return;
  const int at = layers_->currentRow();
  layers_->clear();
  for (int i = 0; i < ids.size(); ++i) {
    auto* item = new QListWidgetItem(layerName(all[static_cast<size_t>(i)]), layers_);
    item->setData(Qt::UserRole, ids[i]);
  }
  layers_->setCurrentRow(std::clamp(at, 0, layers_->count() - 1));
  layers_->setFixedHeight(layers_->sizeHintForRow(0) * layers_->count() + 2 * layers_->frameWidth() + 2);
}

void CutPanel::refreshCloths(const CutList& list) {
  const Rules& rules = session_.design()->rules;
  std::vector<std::pair<std::string, std::string>> wanted;  // layer or piece, and its cloth, from the outside inwards
  const auto has = [&](const std::string& id) {
    return std::ranges::any_of(wanted, [&](const auto& w) { return w.first == id; });
  };
  for (const CutPiece& c : list.pieces)
    if (!has(c.layer)) wanted.emplace_back(c.layer, c.cloth);
  const std::string picked = session_.selection().piece;
  for (const CutPiece& c : list.pieces) {
    const std::string& id = chosenAs(session_.design()->pattern.pieces[c.piece]);
    if (c.layer == "shell" && !has(id) && (c.id == picked || rules.chosenCloth(id))) wanted.emplace_back(id, c.cloth);
  }
  if (rules.option(key::kCutFor) == CutFor::Toile)
    wanted = {{"toile", list.pieces.empty() ? std::string("calico") : list.pieces.front().cloth}};
  for (const auto& [id, cloth] : wanted) {
    ChoiceBox* box = clothBox(id);
    fill(*box, rules.cloths());
    box->setCurrentIndex(box->findData(QString::fromStdString(cloth)));
  }
  for (const auto& [id, row] : cloths_) row.first->setVisible(has(id));
  fill(*clothEdited_, rules.cloths());
  const ListedCloth* edited = rules.cloth(ownCloth());
  if (!edited) return;
  const Unit unit = session_.order().units.unit;
  const auto isOwn = [&](const char* field) {
    return session_.order().choices.contains("cloth." + edited->id + "." + field);
  };
  const auto number = [](double v) { return QString::number(v, 'g', 6); };
  const auto show = [&](ValueRow* row, const char* field, const QString& text) {
    row->show(isOwn(field) ? text : QString(), text, isOwn(field));
  };
  show(clothName_, "name", q(edited->name));
  show(clothWidth_, "width", QString::fromStdString(formatLength(edited->width, {unit, 16})));
  show(clothShrinks_, "shrinks", number(edited->shrinkage));
  show(clothPrice_, "price", edited->price > 0 ? number(edited->price) : QStringLiteral("not known"));
  show(clothApart_, "apart", QString::fromStdString(formatLength(edited->apart, {unit, 16})));
  show(clothOffGrain_, "off-grain", number(edited->offGrain) + QStringLiteral("°"));
  show(clothRemnant_, "remnant",
       isOwn("remnant") ? q(session_.order().choices.at("cloth." + edited->id + ".remnant")) : QStringLiteral("none"));
  show(clothNote_, "note", q(edited->note));
  clothLies_->setCurrentIndex(edited->folded ? 0 : 1);
  clothWay_->setCurrentIndex(edited->oneWay ? 1 : 0);
}

void CutPanel::refreshBones() {
  const Selection& s = session_.selection();
  const Pattern& pattern = session_.design()->pattern;
  const auto piece = std::ranges::find(pattern.pieces, s.piece, &Piece::id);
  const bool panel = piece != pattern.pieces.end() && piece->layer == "shell" && piece->part == Part::Panel;
  const bool bone = isBoneId(s.working);
  place_->setEnabled(panel);
  remove_->setEnabled(bone);
  boneHint_->setText(bone    ? QString("A bone is picked. One of your own is dragged by its handle, along the piece.")
                     : panel ? QString("Picked: %1.").arg(words(piece->name).toLower())
                             : QString("Pick a panel on the table to put a bone on it, or a bone to take it away."));
}

void CutPanel::refresh() {
  if (!isVisible() || !session_.design()) return;
  const Design& d = *session_.design();
  refreshLayers();
  refreshCloths(pieceList(d.pattern, d.rules));
  refreshBones();
}

}  // namespace armure
