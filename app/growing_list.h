// app/growing_list.h
//
// A list that is as high as what it holds, so that the tray scrolls and not the list; long texts are wrapped.
#pragma once

#include <QListWidget>
#include <QResizeEvent>
#include <QSignalBlocker>
#include <algorithm>

namespace armure {

class GrowingList : public QListWidget {
 public:
  GrowingList() {
    setWordWrap(true);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
  }
  // After its entries have changed: each as high as its text is, wrapped.
  void grow() {
    constexpr int kAside = 10, kBox = 22, kAir = 8;  // pixels: margins, a box to tick, above and below
    const QSignalBlocker quiet(this);
    for (int i = 0; i < count(); ++i) {
      QListWidgetItem& one = *item(i);
      const int wide = viewport()->width() - kAside - (one.data(Qt::CheckStateRole).isValid() ? kBox : 0);
      const QRect room(0, 0, std::max(wide, 60), 100000);
      one.setSizeHint({0, fontMetrics().boundingRect(room, Qt::TextWordWrap, one.text()).height() + kAir});
    }
    doItemsLayout();
    updateGeometry();
  }
  QSize sizeHint() const override {
    constexpr int kEmpty = 30;
    int height = 2 * frameWidth() + 2;
    for (int i = 0; i < count(); ++i) height += item(i)->sizeHint().height();
    return {QListWidget::sizeHint().width(), std::max(height, kEmpty)};
  }
  QSize minimumSizeHint() const override { return {60, sizeHint().height()}; }

 protected:
  void resizeEvent(QResizeEvent* event) override {
    QListWidget::resizeEvent(event);
    if (event->size().width() != event->oldSize().width()) grow();
  }
};

}  // namespace armure
