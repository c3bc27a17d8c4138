#include "app/sheet_panel.h"
#include "render/words.h"

#include <QHash>
#include <QPainter>
#include <QVBoxLayout>

namespace armure {
namespace {

constexpr int kAmountRole = Qt::UserRole;

// Told apart by shape, not by colour.
QString markOf(Verdict verdict) {
  return verdict == Verdict::Advice ? QStringLiteral("◆ ")
         : verdict == Verdict::Note ? QStringLiteral("○ ")
                                    : QStringLiteral("✓ ");
}

// What fails has two lines.
bool isTall(const CheckRow& r) { return r.fails(); }

QString amountText(const CheckRow& r, LengthFormat units) {
  const auto millimetres = [](double mm) {
    return QString::fromStdString(formatLengthWithUnit(mm, {Unit::Millimetre, 8}));
  };
  const bool note = r.verdict == Verdict::Note;
  if (note && r.kind != CheckKind::Facts) return r.amount > 0 ? millimetres(r.amount) : QString();
  if (note)
    return r.amount > 0 ? QString::fromUtf8("± ") + QString::fromStdString(formatLength(r.amount, units)) : QString();
  if (r.quantity == Quantity::Angle) return QString::number(r.amount, 'f', 1) + QStringLiteral("°");
  if (r.kind == CheckKind::Wish) return {};
  if (r.quantity == Quantity::Count) return r.amount > 0 ? QString::number(r.amount, 'f', 0) : QString();
  if (r.passes() && r.amount < 0.05) return {};
  return millimetres(r.amount);
}

}  // namespace

// Paints one row: a bar and a mark for the result, subject and detail, the amount on the right.
class SheetPanel::RowPainter : public QStyledItemDelegate {
 public:
  RowPainter(const OrderSession& session, QObject* parent)
      : QStyledItemDelegate(parent), session_(session), theme_(&lightTheme()) {}
  void setTheme(const Theme& theme) { theme_ = &theme; }

  QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const override {
    const CheckRow* r = row(index);
    return {option.rect.width(), r && isTall(*r) ? 48 : 24};
  }

  void paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
    const CheckRow* r = row(index);
    if (!r) return;
    const bool fails = isTall(*r);
    const QRect box = option.rect.adjusted(0, 1, -8, -1);
    p->save();
    if (fails) {
      p->fillRect(box, theme_->attentionGround);
      p->fillRect(QRect(box.topLeft(), QSize(4, box.height())), theme_->attention);
    }
    if (option.state & QStyle::State_Selected) {
      p->setPen(QPen(theme_->working, 1.5));
      p->drawRect(QRectF(box).adjusted(0.5, 0.5, -0.5, -0.5));
    }
    const QRect inside = box.adjusted(12, fails ? 5 : 0, -8, fails ? -5 : 0);
    const QString amount = index.data(kAmountRole).toString();
    p->setFont(uiFont(TextSize::Body, fails));
    p->setPen(fails ? theme_->attention : theme_->secondInk);
    p->drawText(inside, Qt::AlignRight | (fails ? Qt::AlignVCenter : Qt::AlignVCenter), amount);
    const int room = inside.width() - QFontMetrics(p->font()).horizontalAdvance(amount) - 10;
    const auto text = [&](const QRect& where, const QString& s) {
      p->drawText(where, Qt::AlignLeft | Qt::AlignVCenter, fitted(s, p->font(), room));
    };
    const QString subject = words(r->subject);
    p->setPen(theme_->ink);
    if (fails) {
      text(QRect(inside.left(), inside.top(), inside.width(), inside.height() / 2), subject);
      p->setFont(uiFont(TextSize::Small));
      p->setPen(theme_->secondInk);
      text(QRect(inside.left(), inside.center().y() + 1, inside.width(), inside.height() / 2),
           words(r->detail, session_.order().units));
    } else {
      p->setPen(r->passes() ? theme_->secondInk : theme_->ink);
      text(inside, markOf(r->verdict) + subject);
    }
    p->restore();
  }

 private:
  // Cut to a width; the same few texts are asked for at every step of a drag.
  QString fitted(const QString& text, const QFont& font, int room) const {
    constexpr qsizetype kKept = 2000;
    const QString key = QStringLiteral("%1 %2 %3").arg(room).arg(font.bold()).arg(font.pixelSize()) + text;
    if (const auto known = fitted_.constFind(key); known != fitted_.constEnd()) return *known;
    if (fitted_.size() >= kKept) fitted_.clear();
    return *fitted_.insert(key, QFontMetrics(font).elidedText(text, Qt::ElideRight, room));
  }
  const CheckRow* row(const QModelIndex& index) const {
    const Design* d = session_.design();
    const auto i = static_cast<size_t>(index.row());
    return d && i < d->sheet.rows.size() ? &d->sheet.rows[i] : nullptr;
  }
  const OrderSession& session_;
  const Theme* theme_;
  mutable QHash<QString, QString> fitted_;
};

SheetPanel::SheetPanel(OrderSession& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      summary_(new QLabel),
      list_(new QListWidget),
      painter_(new RowPainter(session, this)) {
  setObjectName("columnInside");
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(18, 6, 8, 8);
  column->setSpacing(6);
  auto* head = new QHBoxLayout;
  auto* heading = new QLabel("Balance sheet");
  heading->setObjectName("heading");
  summary_->setObjectName("lesser");
  head->addWidget(heading);
  head->addStretch(1);
  head->addWidget(summary_);
  head->addSpacing(8);
  column->addLayout(head);
  list_->setObjectName("sheet");
  list_->setAccessibleName("Balance sheet");
  list_->setItemDelegate(painter_);
  list_->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
  list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  column->addWidget(list_, 1);
  mending_ = new QWidget;
  auto* line = new QHBoxLayout(mending_);
  line->setContentsMargins(0, 2, 8, 0);
  remedy_ = new QLabel;
  remedy_->setObjectName("remedy");
  remedy_->setWordWrap(true);
  mend_ = new QPushButton;
  mend_->setObjectName("small");
  mend_->setAccessibleName("mend");
  line->addWidget(remedy_, 1);
  line->addWidget(mend_);
  mending_->hide();
  column->addWidget(mending_);
  connect(mend_, &QPushButton::clicked, this, [this] {
    const auto row = session_.selection().row;
    const Design* d = session_.design();
    if (d && row && *row < d->sheet.rows.size()) emit mendWanted(CheckRow(d->sheet.rows[*row]));
  });
  connect(&session, &OrderSession::selectionChanged, this, &SheetPanel::showRemedy);
  const auto choose = [this](QListWidgetItem* item) {
    const Design* d = session_.design();
    if (!d || !item) return;
    const auto i = static_cast<size_t>(list_->row(item));
    const CheckRow& r = d->sheet.rows[i];
    session_.select({.piece = r.piece, .edge = r.edge, .seam = r.seam, .level = r.level, .row = i});
    emit rowChosen();
  };
  connect(list_, &QListWidget::itemClicked, this, choose);
  connect(list_, &QListWidget::itemActivated, this, choose);
  connect(&session, &OrderSession::changed, this, &SheetPanel::refresh);
  refresh();
}

void SheetPanel::setTheme(const Theme& theme) {
  painter_->setTheme(theme);
  list_->viewport()->update();
}

QString SheetPanel::wayOf(const CheckRow& r) const {
  switch (r.kind) {
    case CheckKind::Wish:
    case CheckKind::Stretch:
    case CheckKind::Seam:
    case CheckKind::Corner:
    case CheckKind::Join:
    case CheckKind::FreeEdge:
    case CheckKind::Layer:
    case CheckKind::Trim:
    case CheckKind::Girth: {
      if (!session_.design()->balanced) return "Balance";
      return r.seam.empty() ? "Stage Balance" : "Let both give";
    }
    case CheckKind::Intake:
    case CheckKind::Piece:
    case CheckKind::Curve:
    case CheckKind::Sides:
    case CheckKind::Body:
      return "To the rails";
    case CheckKind::Idle:
    case CheckKind::Facts:
      break;
  }
  return "Measure it";
}

void SheetPanel::showRemedy() {
  const auto row = session_.selection().row;
  const Design* d = session_.design();
  const CheckRow* r = d && row && *row < d->sheet.rows.size() ? &d->sheet.rows[*row] : nullptr;
  const bool shown = r && !r->passes();
  mending_->setVisible(shown);
  if (!shown) return;
  const Message& way = r->remedy.empty() ? r->detail : r->remedy;
  remedy_->setText(QString::fromStdString(capitalised(say(way, session_.order().units))));
  mend_->setText(wayOf(*r));
  // A wrapped text says how high it is only once it is laid out; it must not be cut until then.
  const int room = list_->width() - mend_->sizeHint().width() - 24;
  remedy_->setMinimumHeight(remedy_->heightForWidth(room));
}

// What is painted of a row stands in its item, which has it painted again when it changes: most drags change a few
// figures. Only other heights ask for a new layout.
void SheetPanel::refresh() {
  const Design* d = session_.design();
  const int rows = d ? static_cast<int>(d->sheet.rows.size()) : 0;
  while (list_->count() > rows) delete list_->takeItem(list_->count() - 1);
  while (list_->count() < rows) list_->addItem(QString());
  told_.resize(static_cast<size_t>(rows));
  std::vector<bool> tall;
  for (int i = 0; i < rows; ++i) {
    const CheckRow& r = d->sheet.rows[static_cast<size_t>(i)];
    QListWidgetItem* item = list_->item(i);
    Told told{msg("{}: {}", r.subject, known(verdictName(r.verdict))),
              r.remedy.empty() ? r.detail : msg("{}. To mend it: {}", r.detail, r.remedy), session_.order().units};
    if (Told& before = told_[static_cast<size_t>(i)]; told != before) {
      item->setData(Qt::AccessibleTextRole, words(told.name));
      item->setToolTip(words(told.tip, told.units));
      before = std::move(told);
    }
    item->setData(kAmountRole, amountText(r, session_.order().units));
    tall.push_back(isTall(r));
  }
  if (tall != tall_) {
    tall_ = std::move(tall);
    list_->doItemsLayout();
  }
  showRemedy();
  const size_t advice = d ? d->sheet.count(Verdict::Advice) : 0;
  summary_->setText(d ? QString("%1 to mend, %2 to consider, of %3").arg(d->sheet.failing()).arg(advice).arg(rows)
                      : QString());
}

}  // namespace armure
