// What the window must never do: draft otherwise in another locale, lose what is not saved, write over another's work.
#include <QDir>
#include <QLineEdit>
#include <QMenu>
#include <QPushButton>
#include <QTemporaryDir>
#include <QtTest/QTest>
#include <catch2/catch.hpp>
#include <clocale>
#include <filesystem>

#include "app/order_lock.h"
#include "app/preferences.h"
#include "io/atomic_file.h"
#include "io/pieces_json.h"
#include "io/svg.h"
#include "tests/app/driver.h"
#include "tests/support/killed.h"

using namespace armure;
using namespace armure::testing;

namespace {

struct Driver : ShownWindow {
  void type(const QString& name, const QString& text) {
    auto* field = window.findChild<QLineEdit*>(name + ".field");
    REQUIRE(field != nullptr);
    QTest::mouseClick(field, Qt::LeftButton);
    QTest::keySequence(field, QKeySequence::SelectAll);
    QTest::keyClicks(field, text);
  }
  QPushButton* yes() { return window.findChild<QPushButton*>("bandYes"); }
  QAction* menuAction(const QString& text) {
    auto* menu = window.findChild<QMenu*>();
    emit menu->aboutToShow();
    for (QAction* action : menu->actions())
      if (action->text().contains(text)) return action;
    return nullptr;
  }
  OrderSession& session() { return window.session(); }
};

// What is kept and belongs to nobody goes, so that the next test finds none.
void forgetAll(OrderSession& session) {
  const Autosave autosave(session);
  for (const Recovered& r : autosave.kept()) Autosave::forget(r);
}

}  // namespace

TEST_CASE("a comma and a point are the same in every locale, in fields and in what is drafted", "[locale]") {
  Driver d;
  for (const char* typed : {"36.5", "36,5", "36 1/2", "36½", "92.71 cm", "92,71cm"}) {
    d.type("bust", typed);
    INFO(typed);
    REQUIRE(d.session().order().measures.mm("bust"));
    CHECK(*d.session().order().measures.mm("bust") == Approx(927.1).margin(1e-9));
  }
  // The demo order drafts to the same bytes as in the golden exports' locale: rules with decimals are read alike.
  d.window.openFile(demoFile("2-lamp-room"));
  REQUIRE(d.session().design() != nullptr);
  const std::string pieces = piecesJson(d.session().order(), *d.session().design());
  CHECK(pieces.find(',') != std::string::npos);
  const std::string kept = std::setlocale(LC_ALL, nullptr);
  std::setlocale(LC_ALL, "C");
  const auto plain = recalc(d.session().order());
  CHECK(piecesJson(d.session().order(), *plain) == pieces);
  std::setlocale(LC_ALL, kept.c_str());
  forgetAll(d.session());
}

TEST_CASE("a length with blanks, primes and commas is taken, or said to be none; the window stays", "[locale]") {
  Driver d;
  d.window.openFile(demoFile("1-ferry"));
  for (const char* typed : {"7 cm ", "5″",
                            "7\xC2\xA0"
                            "cm",
                            "\t4 in", "3,5", "5''", "x", "7 cm in", "9 1/", "1e9", "\xE2\x80\xAF"}) {
    INFO(typed);
    const auto refused = d.session().setChoice("hem.length", typed);
    if (refused) continue;
    const auto kept = d.session().order().choices.find("hem.length");
    if (kept == d.session().order().choices.end()) continue;
    const auto again = checkChoice("hem.length", kept->second, Unit::Millimetre);
    REQUIRE(again.ok());
    CHECK(*again == kept->second);
  }
  CHECK(parseOrder(orderText(d.session().asFile()), "o").ok());
}

TEST_CASE("a new order does not take what is not saved with it: it stands in the menu, one click away") {
  Driver d;
  d.type("bust", "36");
  d.type("waist", "28");
  d.session().setText(&Order::title, "An evening's work", "title");
  QTest::keySequence(&d.window, QKeySequence::New);
  CHECK(d.session().order().measures.all().empty());
  CHECK(d.window.bandText().contains("An evening's work"));
  REQUIRE(d.yes()->isVisible());
  REQUIRE(d.menuAction("An evening's work") != nullptr);
  // Another one is begun and left for a file.
  d.type("bust", "40");
  d.session().setText(&Order::title, "The second", "title");
  d.window.openFile(demoFile("1-ferry"));
  REQUIRE(d.menuAction("An evening's work") != nullptr);
  REQUIRE(d.menuAction("The second") != nullptr);
  d.menuAction("An evening's work")->trigger();
  CHECK(d.session().order().title == "An evening's work");
  CHECK(*d.session().order().measures.mm("waist") == Approx(711.2));
  CHECK(d.menuAction("An evening's work") == nullptr);  // it is open
  QTest::keySequence(&d.window, QKeySequence::New);
  QTest::mouseClick(d.yes(), Qt::LeftButton);
  CHECK(d.session().order().title == "An evening's work");
  // Saved, it is kept no longer; the other one is thrown away by hand.
  const QTemporaryDir folder;
  REQUIRE_FALSE(d.session().save(folder.filePath("a.armure").toStdString()).problem);
  d.window.keepWork();
  QAction* away = d.menuAction("Throw away");
  REQUIRE(away != nullptr);
  REQUIRE(away->menu()->actions().size() == 1);
  away->menu()->actions().front()->trigger();
  CHECK(d.menuAction("The second") == nullptr);
}

TEST_CASE("what another program saved meanwhile is kept beside the order") {
  const QTemporaryDir folder;
  const std::string path = folder.filePath("order.armure").toStdString();
  OrderSession mine, other;
  REQUIRE_FALSE(mine.open(demoFile("1-ferry").toStdString()));
  REQUIRE_FALSE(mine.save(path).problem);
  REQUIRE_FALSE(other.open(path));
  other.setText(&Order::notes, "theirs", "notes");
  REQUIRE_FALSE(other.save(path).problem);
  mine.setText(&Order::notes, "mine", "notes");
  const OrderSession::Saving saving = mine.save(path);
  REQUIRE_FALSE(saving.problem);
  REQUIRE_FALSE(saving.keptBeside.empty());
  CHECK(readOrder(saving.keptBeside)->order.notes == "theirs");
  CHECK(readOrder(path)->order.notes == "mine");
  mine.setText(&Order::notes, "mine again", "notes");
  CHECK(mine.save(path).keptBeside.empty());  // its own file since
}

TEST_CASE("an order is worked on in one window: a second one reads it, and takes over when the first is gone") {
  const QTemporaryDir folder;
  const QString path = folder.filePath("order.armure");
  REQUIRE(QFile::copy(demoFile("1-ferry"), path));
  auto first = std::make_unique<Driver>();
  first->window.openFile(path);
  CHECK_FALSE(first->session().isForReading());
  {
    Driver second;
    second.window.openFile(path);
    CHECK(second.session().isForReading());
    CHECK(second.window.bandText().contains("another window"));
    first.reset();
    second.session().setText(&Order::notes, "now hers", "notes");
    QTest::keySequence(&second.window, QKeySequence::Save);
    CHECK_FALSE(second.session().isForReading());
    CHECK(readOrder(path.toStdString())->order.notes == "now hers");
  }
}

TEST_CASE("new orders are balanced; as drafted is a preference, and one choice") {
  Driver d;
  CHECK(d.session().rule("balance.keep").option == "balanced");
  REQUIRE_FALSE(writePreferences({true}));
  QTest::keySequence(&d.window, QKeySequence::New);
  CHECK(d.session().rule("balance.keep").option == "drafted");
  REQUIRE_FALSE(writePreferences({false}));
  CHECK_FALSE(readPreferences().newOrdersAsDrafted);
}

TEST_CASE("killed while keeping what is preferred, it is the one or the other") {
  REQUIRE_FALSE(writePreferences({true}));
  const std::filesystem::path file = preferencesFile();
  size_t changed = 0;
  for (int round = 0; killsAgain(round, 30, changed); ++round) {
    killedAfter(static_cast<useconds_t>(300 + 97 * round), [](int i) { (void)writePreferences({i % 2 == 1}); });
    const Result<std::string> text = readFile(file);
    REQUIRE(text.ok());
    const bool drafted = readPreferences().newOrdersAsDrafted;
    CHECK(text->find(drafted ? "\"drafted\"" : "\"balanced\"") != std::string::npos);
    changed += drafted ? 0 : 1;
  }
  CHECK(changed > 0);
  REQUIRE_FALSE(writePreferences({false}));
  for (const auto& entry : std::filesystem::directory_iterator(file.parent_path()))
    CHECK(entry.path().filename().string().find(".part") == std::string::npos);
}

TEST_CASE("messages quote files as plain text") {
  Driver d;
  const QTemporaryDir folder;
  const std::string path = folder.filePath("x.armure").toStdString();
  REQUIRE_FALSE(
      writeFileAtomically(path, "{\"format\": \"armure-order\", \"version\": 2, \"style\": \"<h1>big</h1>\"}"));
  d.window.openFile(QString::fromStdString(path));
  CHECK(d.window.bandText().contains("<h1>big</h1>"));
  CHECK(d.window.findChild<QLabel*>("bandText")->textFormat() == Qt::PlainText);
}

TEST_CASE("a step that cannot be drafted is not shown and taken back, but not done") {
  OrderSession s;
  REQUIRE_FALSE(s.open(demoFile("1-ferry").toStdString()));
  int changes = 0;
  QObject::connect(&s, &OrderSession::changed, [&] { ++changes; });
  const auto refused = s.tryChoice("shoulder.slope_front", "3 in");
  const auto impossible = s.tryChoice("dart.side", "3.5 in");
  CHECK(changes == (refused ? 0 : 1) + (impossible ? 0 : 1));
  CHECK_FALSE(s.problem());
}
