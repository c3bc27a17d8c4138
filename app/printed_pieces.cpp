#include "app/printed_pieces.h"

#include <QHeaderView>
#include <QSignalBlocker>
#include <map>

#include "layers/recipe.h"
#include "render/words.h"

namespace armure {
namespace {

constexpr int kMostRows = 12, kRowPixels = 18;

QString layerTitle(const std::string& layer) {
  const LayerRecipe* recipe = findLayer(layer);
  return recipe ? q(recipe->name) : QStringLiteral("Shell");
}
QString pieceTitle(const Piece& piece) { return QString("%1 · %2").arg(piece.number).arg(words(piece.name)); }

}  // namespace

PrintedPieces::PrintedPieces(OrderSession& session, QWidget* parent) : QTreeWidget(parent), session_(session) {
  setObjectName("printedPieces");
  setAccessibleName("Pieces that are printed and drawn in files");
  setToolTip("What is not ticked is left out of prints, PDF, SVG and DXF");
  header()->hide();
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  connect(&session, &OrderSession::changed, this, &PrintedPieces::refresh);
  connect(this, &QTreeWidget::itemChanged, this, &PrintedPieces::leaveOut);
  connect(this, &QTreeWidget::itemExpanded, this, &PrintedPieces::fitHeight);
  connect(this, &QTreeWidget::itemCollapsed, this, &PrintedPieces::fitHeight);
}

void PrintedPieces::showEvent(QShowEvent* event) {
  refresh();
  QTreeWidget::showEvent(event);
}

void PrintedPieces::refresh() {
  const Design* design = session_.whole();
  if (!isVisible() || !design) return;
  QStringList wanted;
  for (const Piece& p : design->pattern.pieces) wanted << q(p.layer) + '/' + q(p.id) + '/' + pieceTitle(p);
  const QSignalBlocker quiet(this);
  if (wanted != shown_) fill(design->pattern);
  shown_ = wanted;
  for (QTreeWidgetItemIterator it(this); *it; ++it)
    if (const std::string id = (*it)->data(0, Qt::UserRole).toString().toStdString(); !id.empty())
      (*it)->setCheckState(0, session_.leftOut().contains(id) ? Qt::Unchecked : Qt::Checked);
  fitHeight();
}

void PrintedPieces::fill(const Pattern& pattern) {
  clear();
  std::map<std::string, QTreeWidgetItem*> layers;
  for (const Piece& p : pattern.pieces) {
    QTreeWidgetItem*& layer = layers[p.layer];
    if (!layer) {
      layer = new QTreeWidgetItem(this, {layerTitle(p.layer)});
      layer->setFlags(layer->flags() | Qt::ItemIsUserCheckable | Qt::ItemIsAutoTristate);
    }
    auto* item = new QTreeWidgetItem(layer, {pieceTitle(p)});
    item->setFlags(item->flags() | Qt::ItemIsUserCheckable);
    item->setData(0, Qt::UserRole, q(p.id));
  }
}

void PrintedPieces::leaveOut() {
  std::set<std::string> out;
  for (QTreeWidgetItemIterator it(this); *it; ++it)
    if (const QString id = (*it)->data(0, Qt::UserRole).toString(); !id.isEmpty() && !(*it)->checkState(0))
      out.insert(id.toStdString());
  session_.leaveOut(std::move(out));
}

void PrintedPieces::fitHeight() {
  int rows = 0;
  for (int i = 0; i < topLevelItemCount(); ++i)
    rows += 1 + (topLevelItem(i)->isExpanded() ? topLevelItem(i)->childCount() : 0);
  const int row = topLevelItemCount() > 0 ? rowHeight(indexFromItem(topLevelItem(0))) : 0;
  setFixedHeight(std::max(kRowPixels, row) * std::min(rows, kMostRows) + 2 * frameWidth() + 4);
}

}  // namespace armure
