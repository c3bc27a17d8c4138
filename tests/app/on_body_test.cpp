// The bodice tried on, in the real window: found in the background, turned by keys and mouse, its findings listed, and
// what mends one shown before it is taken.
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>

#include "tests/app/driver.h"

using namespace armure;
using namespace armure::testing;

namespace {

struct OnBody : ShownWindow {
  explicit OnBody(const char* order = "1-ferry") {
    window.openFile(demoFile(order));
    window.stages().setStage(Stage::Balance);
    settle();
    QTest::keyClick(&window, Qt::Key_V);
    wait();
  }
  BodyView& view() { return window.onBody(); }
  BodyCanvas& canvas() { return view().canvas(); }
  // Until the trial of the order as it stands is there.
  void wait() {
    for (int i = 0; i < 3000 && !view().isCurrent(); ++i) QTest::qWait(50);
    REQUIRE(view().isCurrent());
    settle();
  }
  QPushButton* button(const QString& text) {
    for (QPushButton* b : view().findChildren<QPushButton*>())
      if (b->text() == text) return b;
    FAIL("no button " << text.toStdString());
    return nullptr;
  }
};

}  // namespace

TEST_CASE("V tries the bodice on; it is turned by keys and mouse and coloured by what the cloth does") {
  OnBody d;
  CHECK(d.canvas().hasFocus());
  REQUIRE(d.canvas().picture());
  const QImage front = d.canvas().picture()->image();
  QTest::keyClick(&d.canvas(), Qt::Key_Left);
  d.settle();
  CHECK(d.canvas().picture()->image() != front);
  QTest::mouseClick(d.button("front"), Qt::LeftButton);
  d.settle();
  CHECK(d.canvas().picture()->image() == front);
  QTest::mouseClick(d.button("side"), Qt::LeftButton);
  CHECK(d.canvas().looks().turn == Approx(kFromTheSide));
  const QPoint middle = d.canvas().rect().center();
  QTest::mousePress(&d.canvas(), Qt::LeftButton, {}, middle);
  QMouseEvent drag(QEvent::MouseMove, QPointF(middle) + QPointF(40, 0), d.canvas().mapToGlobal(QPointF(middle)),
                   Qt::LeftButton, Qt::LeftButton, {});
  QApplication::sendEvent(&d.canvas(), &drag);
  QTest::mouseRelease(&d.canvas(), Qt::LeftButton, {}, middle + QPoint(40, 0));
  CHECK(d.canvas().looks().turn > kFromTheSide + 0.2);
  QTest::mouseClick(d.button("pressure"), Qt::LeftButton);
  CHECK(d.canvas().looks().colour == ClothColour::Pressure);
  QTest::mouseClick(d.button("clear"), Qt::LeftButton);
  CHECK(d.canvas().looks().clear);
  d.settle();

  // The numbers of the place under the finger.
  QTest::mouseMove(&d.canvas(), middle + QPoint(10, 10));
  QTest::mouseMove(&d.canvas(), middle + QPoint(12, 12));
  d.settle();
  bool read = false;
  for (QLabel* label : d.view().findChildren<QLabel*>()) read = read || label->text().contains("kPa");
  CHECK(read);

  QTest::keyClick(&d.canvas(), Qt::Key_Escape);
  CHECK_FALSE(d.view().isVisible());
}

TEST_CASE("what mends a finding is shown before it is taken, and taken it is one step of undo") {
  OnBody d("2-lamp-room");
  int row = -1;
  for (int i = 0; i < d.view().findings().count() && row < 0; ++i)
    if (d.view().findings().item(i)->text().contains("bust point")) row = i;
  REQUIRE(row >= 0);
  const QRect place = d.view().findings().visualItemRect(d.view().findings().item(row));
  d.view().findings().scrollToItem(d.view().findings().item(row));
  QTest::mouseClick(d.view().findings().viewport(), Qt::LeftButton, {},
                    d.view().findings().visualItemRect(d.view().findings().item(row)).center());
  CHECK(place.isValid());
  QPushButton* tryIt = d.button("Try what mends it");
  REQUIRE(tryIt->isVisible());
  const Order before = d.order();
  QTest::mouseClick(tryIt, Qt::LeftButton);
  QPushButton* take = d.button("Take it");
  for (int i = 0; i < 1200 && !take->isVisible(); ++i) QTest::qWait(50);
  REQUIRE(take->isVisible());
  CHECK(d.order() == before);  // shown, not taken
  bool compared = false;
  for (QLabel* label : d.view().findChildren<QLabel*>())
    compared = compared || label->text().contains("bust point low");
  CHECK(compared);
  QTest::mouseClick(take, Qt::LeftButton);
  CHECK(*d.order().measures.mm("shoulder_to_bust") < *before.measures.mm("shoulder_to_bust"));
  d.wait();
  d.session().undo();
  CHECK(d.order() == before);
}

TEST_CASE("while a change is tried the last trial is shown as old; what covers the shoulders is tried too") {
  OnBody d;
  d.session().setChoice("reduction.waist", "1 in");
  CHECK_FALSE(d.view().isCurrent());
  d.session().setChoice("reduction.waist", "1.5 in");  // another before the first has ended
  d.wait();
  d.session().setStyle("covered-round");
  CHECK_FALSE(d.view().isCurrent());
  d.wait();
  CHECK(d.canvas().picture());
}

TEST_CASE("P shows the cups on the body from near") {
  OnBody d;
  const QImage whole = d.canvas().picture()->image();
  CHECK_FALSE(d.canvas().looks().near);
  QTest::keyClick(&d.canvas(), Qt::Key_Escape);
  QTest::keyClick(&d.window, Qt::Key_P);
  d.wait();
  CHECK(d.window.stages().stage() == Stage::Cups);
  CHECK(d.canvas().looks().near);
  CHECK(d.canvas().picture()->image() != whole);
  QTest::mouseClick(d.button("cups"), Qt::LeftButton);
  CHECK_FALSE(d.canvas().looks().near);
}

TEST_CASE("a lacing is drawn with the tension that is typed, and offered only where there is one") {
  OnBody d;
  auto* laced = d.view().findChild<QLineEdit*>();
  REQUIRE(laced);
  d.session().setChoice("opening.kind", "zip");
  d.wait();
  CHECK_FALSE(laced->isVisible());
  d.session().setChoice("opening.kind", "lacing");
  d.wait();
  REQUIRE(laced->isVisible());
  const auto type = [&](const char* text) {
    laced->setFocus();
    laced->selectAll();
    QTest::keyClicks(laced, text);
    QTest::keyClick(laced, Qt::Key_Return);
  };
  type("much");
  CHECK(laced->property("wrong").toBool());
  CHECK(d.view().isCurrent());
  type("3,5");  // with a comma or a point, in every locale
  CHECK_FALSE(laced->property("wrong").toBool());
  CHECK_FALSE(d.view().isCurrent());
  d.wait();
  REQUIRE(d.view().shown());
  CHECK(d.view().shown()->laced == Approx(3.5));
  type("3.5");
  CHECK(d.view().isCurrent());
}
