// The band under the header: messages, one question at a time, and what its buttons do, by mouse.
#include <QPushButton>
#include <QSignalSpy>
#include <QtTest/QTest>
#include <catch2/catch.hpp>

#include "app/message_band.h"
#include "tests/support/bodies.h"

using namespace armure;
using namespace armure::testing;

namespace {

struct Band {
  OrderSession session;
  MessageBand band{session};
  Band() { band.resize(600, 60); }

  void press(const char* name) {
    auto* button = band.findChild<QPushButton*>(name);
    REQUIRE(button != nullptr);
    REQUIRE(button->isVisibleTo(&band));
    QTest::mouseClick(button, Qt::LeftButton);
  }
  bool offers(const char* name) { return band.findChild<QPushButton*>(name)->isVisibleTo(&band); }
};

}  // namespace

TEST_CASE("the band is hidden while there is nothing to say") {
  Band b;
  CHECK(b.band.isHidden());
  b.band.tell(QString("Written: /somewhere/pattern.pdf"));
  CHECK_FALSE(b.band.isHidden());
  CHECK(b.band.text() == "Written: /somewhere/pattern.pdf");
  CHECK_FALSE(b.offers("bandYes"));
  b.press("bandNo");
  CHECK(b.band.isHidden());
  CHECK(b.band.message().isEmpty());
}

TEST_CASE("a question is answered once, and leaving it does nothing") {
  Band b;
  int answered = 0;
  const auto ask = [&] { b.band.ask({"It is not saved.", "Back to it", [&] { ++answered; }}); };
  ask();
  CHECK(b.band.findChild<QPushButton*>("bandYes")->text() == "Back to it");
  CHECK(b.band.findChild<QPushButton*>("bandNo")->text() == "Leave it");
  b.press("bandYes");
  CHECK(answered == 1);
  CHECK(b.band.isHidden());
  ask();
  b.press("bandNo");
  CHECK(answered == 1);
  CHECK(b.band.isHidden());
  ask();
  b.band.dropQuestion();
  b.band.tell(QString());
  CHECK(b.band.isHidden());
}

TEST_CASE("an answer may ask again") {
  Band b;
  bool second = false;
  b.band.ask({"First?", "Yes", [&] { b.band.ask({"Second?", "Yes", [&] { second = true; }}); }});
  b.press("bandYes");
  CHECK(b.band.text() == "Second?");
  b.press("bandYes");
  CHECK(second);
  CHECK(b.band.isHidden());
}

TEST_CASE("a message and a question stand together, and a problem of the order below them") {
  Band b;
  QSignalSpy told(&b.band, &MessageBand::told);
  b.band.tell(Problem{"hem.length", "\"x\" is no length", "give a number"});
  b.band.ask({"Write over it?", "Write over it", [] {}});
  CHECK(told.count() == 2);
  CHECK(b.band.text() == "hem.length: \"x\" is no length; give a number\nWrite over it?");
  b.session.setMeasure("bust", "36 in");
  b.session.setMeasure("waist", "30 in");
  REQUIRE(b.session.problem());  // below the waist nothing can be drafted without the hip
  CHECK(b.band.text().contains(QString::fromStdString(b.session.problem()->text())));
  CHECK(told.count() == 2);  // what the session says is no news of the band's
}

TEST_CASE("foreign text stands as it is, never as markup") {
  Band b;
  b.band.tell(QString("<b>file</b>.csv: line 3"));
  CHECK(b.band.text() == "<b>file</b>.csv: line 3");
  CHECK(b.band.findChild<QLabel*>("bandText")->textFormat() == Qt::PlainText);
}
