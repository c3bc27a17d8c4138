#include "app/style_shelf.h"

#include <QKeyEvent>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/client_pages.h"
#include "measure/standard_sizes.h"
#include "recalc/recalc.h"
#include "render/sketch_painter.h"
#include "render/words.h"

namespace armure {
namespace {

constexpr int kCardWide = 186, kCardHigh = 104, kNamesHigh = 34;  // pixels of a card

// These measures and school with nothing chosen but the style.
Order plainOrder(const MeasureSet& measures, const std::string& school, std::string_view style) {
  Order plain;
  plain.school = school;
  plain.style = style;
  plain.measures = measures;
  return plain;
}

}  // namespace

StyleShelf::StyleShelf(OrderSession& session, QWidget* parent)
    : QWidget(parent), session_(session), theme_(&lightTheme()), list_(new QListWidget), words_(new QLabel) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(18, 12, 12, 8);
  column->setSpacing(6);
  auto* head = new QHBoxLayout;
  auto* title = new QLabel("Styles");
  title->setObjectName("heading");
  auto* back = pillButton("back to the table", false);
  connect(back, &QPushButton::clicked, this, &StyleShelf::left);
  head->addWidget(title);
  head->addSpacing(10);
  words_->setObjectName("lesser");
  words_->setWordWrap(true);
  head->addWidget(words_, 1);
  head->addWidget(back);
  column->addLayout(head);
  list_->setObjectName("styleShelf");
  list_->setAccessibleName("Styles");
  list_->setViewMode(QListView::IconMode);
  list_->setMovement(QListView::Static);
  list_->setResizeMode(QListView::Adjust);
  list_->setUniformItemSizes(true);
  list_->setWordWrap(true);
  list_->setIconSize({kCardWide, kCardHigh});
  list_->setGridSize({kCardWide + 10, kCardHigh + kNamesHigh});
  list_->installEventFilter(this);
  column->addWidget(list_, 1);
  connect(list_, &QListWidget::currentRowChanged, this, &StyleShelf::describe);
  connect(list_, &QListWidget::itemClicked, this, &StyleShelf::choose);
}

void StyleShelf::setTheme(const Theme& theme) {
  theme_ = &theme;
  if (isVisible()) refresh();
}

bool StyleShelf::eventFilter(QObject* object, QEvent* event) {
  if (event->type() == QEvent::KeyPress) {
    const int key = static_cast<QKeyEvent*>(event)->key();
    if (key == Qt::Key_Return || key == Qt::Key_Enter || key == Qt::Key_Space) {
      choose();
      return true;
    }
    if (key == Qt::Key_Escape) {
      emit left();
      return true;
    }
  }
  return QWidget::eventFilter(object, event);
}

StyleShelf::Drawn StyleShelf::wanted() const {
  const bool usable = session_.design() && !session_.problem();
  const auto sizes = standardSizes();
  return {usable ? session_.order().measures : standardMeasures(sizes[sizes.size() / 3]), session_.order().school,
          theme_, devicePixelRatioF()};
}

void StyleShelf::refresh() {
  const QSignalBlocker still(list_);
  if (Drawn now = wanted(); now != drawn_) {
    draw(now);
    drawn_ = std::move(now);
  }
  for (int i = 0; i < list_->count(); ++i)
    if (list_->item(i)->data(Qt::UserRole).toString().toStdString() == session_.order().style) list_->setCurrentRow(i);
  describe();
  list_->setFocus();
}

void StyleShelf::draw(const Drawn& wanted) {
  list_->clear();
  for (const Preset& style : styleTable()) {
    QPixmap picture(QSize(kCardWide, kCardHigh) * wanted.ratio);
    picture.setDevicePixelRatio(wanted.ratio);
    picture.fill(Qt::transparent);
    const Result<GarmentSketch> sketch = sketchOf(plainOrder(wanted.measures, wanted.school, style.id));
    if (sketch.ok()) {
      QPainter p(&picture);
      drawSketch(p, *sketch, QRectF(6, 6, kCardWide - 12, kCardHigh - 12), *theme_);
    }
    QIcon icon(picture);
    icon.addPixmap(picture, QIcon::Selected);  // the drawing keeps its colours
    auto* item = new QListWidgetItem(icon, q(style.name), list_);
    item->setData(Qt::UserRole, q(style.id));
    item->setToolTip(sketch.ok() ? q(style.description) : QString::fromStdString(sketch.problem().text()));
    item->setTextAlignment(Qt::AlignHCenter | Qt::AlignTop);
  }
}

void StyleShelf::describe() {
  const QListWidgetItem* item = list_->currentItem();
  words_->setText(item ? item->toolTip() : QString());
}

void StyleShelf::choose() {
  if (const QListWidgetItem* item = list_->currentItem()) {
    session_.setStyle(item->data(Qt::UserRole).toString().toStdString());
    session_.settle();
  }
  emit left();
}

}  // namespace armure
