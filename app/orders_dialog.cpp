#include "app/orders_dialog.h"

#include <QAbstractButton>
#include <QDialogButtonBox>
#include <QDir>
#include <QFileInfo>
#include <QHeaderView>
#include <QKeyEvent>
#include <QLabel>
#include <QLocale>
#include <QPushButton>
#include <QSet>
#include <QVBoxLayout>

namespace armure {
namespace {

enum Column { kName, kFolder, kChanged };

QString shortened(const QString& folder) {
  const QString home = QDir::homePath();
  return folder.startsWith(home + "/") ? "~" + folder.mid(home.size()) : folder;
}

}  // namespace

OrdersDialog::OrdersDialog(const QStringList& recent, QWidget* parent)
    : QDialog(parent), field_(new QLineEdit), list_(new QTreeWidget) {
  setWindowTitle("Orders");
  resize(720, 480);
  auto* column = new QVBoxLayout(this);
  field_->setObjectName("orderFilter");
  field_->setPlaceholderText("A word of its name or folder");
  field_->setAccessibleName("Find an order");
  field_->installEventFilter(this);
  column->addWidget(field_);
  list_->setObjectName("orders");
  list_->setAccessibleName("Orders");
  list_->setHeaderLabels({"Order", "Folder", "Changed"});
  list_->setRootIsDecorated(false);
  list_->setUniformRowHeights(true);
  list_->setAllColumnsShowFocus(true);
  list_->header()->setStretchLastSection(false);
  list_->header()->setSectionResizeMode(kName, QHeaderView::Stretch);
  list_->header()->setSectionResizeMode(kFolder, QHeaderView::Stretch);
  list_->header()->setSectionResizeMode(kChanged, QHeaderView::ResizeToContents);
  column->addWidget(list_, 1);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Open | QDialogButtonBox::Cancel);
  for (QAbstractButton* button : buttons->buttons()) button->setIcon({});
  column->addWidget(buttons);
  fill(recent);
  look({});
  connect(field_, &QLineEdit::textChanged, this, &OrdersDialog::look);
  connect(list_, &QTreeWidget::itemActivated, this, &OrdersDialog::take);
  connect(buttons, &QDialogButtonBox::accepted, this, [this] { take(list_->currentItem()); });
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  field_->setFocus();
}

// The recent ones in their order, then what else lies in their folders.
void OrdersDialog::fill(const QStringList& recent) {
  QStringList files = recent;
  QSet<QString> known(recent.begin(), recent.end()), folders;
  for (const QString& file : recent) {
    const QDir folder = QFileInfo(file).dir();
    if (folders.contains(folder.path())) continue;
    folders.insert(folder.path());
    for (const QFileInfo& info : folder.entryInfoList({"*.armure"}, QDir::Files, QDir::Name))
      if (!known.contains(info.absoluteFilePath())) files << info.absoluteFilePath();
  }
  QList<QTreeWidgetItem*> items;
  for (const QString& file : files) {
    const QFileInfo info(file);
    auto* item = new QTreeWidgetItem({info.completeBaseName(), shortened(info.path()),
                                      QLocale::system().toString(info.lastModified().date(), QLocale::ShortFormat)});
    item->setData(kName, Qt::UserRole, file);
    item->setToolTip(kName, file);
    items << item;
  }
  list_->addTopLevelItems(items);
}

void OrdersDialog::look(const QString& words) {
  const QStringList all = words.split(' ', Qt::SkipEmptyParts);
  QTreeWidgetItem* first = nullptr;
  for (int i = 0; i < list_->topLevelItemCount(); ++i) {
    QTreeWidgetItem* item = list_->topLevelItem(i);
    const QString file = item->data(kName, Qt::UserRole).toString();
    const bool found =
        std::all_of(all.begin(), all.end(), [&](const QString& w) { return file.contains(w, Qt::CaseInsensitive); });
    item->setHidden(!found);
    if (found && !first) first = item;
  }
  list_->setCurrentItem(first);
}

void OrdersDialog::step(int by) {
  for (QTreeWidgetItem* item = list_->currentItem(); item;) {
    item = by > 0 ? list_->itemBelow(item) : list_->itemAbove(item);
    if (item) return list_->setCurrentItem(item);
  }
}

void OrdersDialog::take(QTreeWidgetItem* item) {
  if (!item || item->isHidden()) return;
  chosen_ = item->data(kName, Qt::UserRole).toString();
  accept();
}

// The list is gone through without leaving the field.
bool OrdersDialog::eventFilter(QObject* object, QEvent* event) {
  if (object == field_ && event->type() == QEvent::KeyPress) {
    const int key = static_cast<QKeyEvent*>(event)->key();
    if (key == Qt::Key_Down || key == Qt::Key_Up) {
      step(key == Qt::Key_Down ? 1 : -1);
      return true;
    }
    if (key == Qt::Key_Return || key == Qt::Key_Enter) {
      take(list_->currentItem());
      return true;
    }
  }
  return QDialog::eventFilter(object, event);
}

}  // namespace armure
