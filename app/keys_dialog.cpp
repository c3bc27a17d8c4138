#include "app/keys_dialog.h"

#include <QAbstractButton>
#include <QDialogButtonBox>
#include <QHeaderView>
#include <QTreeWidget>
#include <QVBoxLayout>

namespace armure {

std::vector<KeyHint> keysOfViews() {
  return {{"+, −, 0", "On the table: nearer, further, all of it"},
          {"Arrows", "On the table: move the paper"},
          {"G, Shift+G", "On the table: to the next handle, to the one before"},
          {"Shift+Arrows, Delete", "On the table: move the handle, give it back"},
          {"C", "On the table: combs"},
          {"H", "On the table: the other half of the body"},
          {"O", "On the table: the chosen seam open, or taped"},
          {"Arrows", "On the rails: from gap to gap, from level to level"},
          {"+, −, Enter", "On the rails: the gap wider, narrower, as typed"},
          {"H, Delete", "On the rails: hold the gap, give it back"},
          {"N, Shift+Delete", "On the rails: a level more, the level away"},
          {"Left, Right, Home, End", "On the seam walker: along the seam, to its ends"},
          {"Up, Down", "On the seam walker: to the next seam, to the one before"},
          {"Enter, Up, Down", "In a measure: on to the next, to the one before"},
          {"Tab, Shift+Tab", "From field to field"}};
}

KeysDialog::KeysDialog(const std::vector<KeyHint>& keys, QWidget* parent) : QDialog(parent) {
  setWindowTitle("Keys");
  resize(620, 640);
  auto* column = new QVBoxLayout(this);
  auto* list = new QTreeWidget;
  list->setObjectName("keys");
  list->setAccessibleName("Keys");
  list->setHeaderLabels({"Key", "What it does"});
  list->setRootIsDecorated(false);
  list->setUniformRowHeights(true);
  list->header()->setSectionResizeMode(0, QHeaderView::ResizeToContents);
  const auto add = [list](const std::vector<KeyHint>& some) {
    for (const KeyHint& k : some) new QTreeWidgetItem(list, {k.keys, k.what});
  };
  add(keys);
  add(keysOfViews());
  list->setCurrentItem(list->topLevelItem(0));
  column->addWidget(list);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  for (QAbstractButton* button : buttons->buttons()) button->setIcon({});
  column->addWidget(buttons);
}

}  // namespace armure
