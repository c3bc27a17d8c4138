#include "app/remembered.h"

#include <QFile>
#include <QFileInfo>
#include <QGuiApplication>
#include <QLocale>
#include <QPalette>

namespace armure {
namespace {

constexpr qsizetype kMostRecent = 500;
constexpr const char *kDark = "dark", *kLight = "light", *kInches = "in", *kCentimetres = "cm";

}  // namespace

Remembered::Remembered() : settings_(QSettings::IniFormat, QSettings::UserScope, "armure", "armure") {}

void Remembered::set(const QString& key, const QVariant& value) {
  if (settings_.value(key) == value) return;
  settings_.setValue(key, value);
  settings_.sync();
  QFile::setPermissions(settings_.fileName(), QFile::ReadOwner | QFile::WriteOwner);  // clients' names stand in files'
}

Shade Remembered::shade() const {
  const QString said = settings_.value("shade").toString();
  return said == kDark ? Shade::Dark : said == kLight ? Shade::Light : Shade::AsDesktop;
}

void Remembered::setShade(Shade shade) {
  set("shade", shade == Shade::Dark ? kDark : shade == Shade::Light ? kLight : "desktop");
}

Unit Remembered::units() const {
  const QString said = settings_.value("units").toString();
  if (said == kInches) return Unit::Inch;
  if (said == kCentimetres) return Unit::Centimetre;
  return QLocale::system().measurementSystem() == QLocale::MetricSystem ? Unit::Centimetre : Unit::Inch;
}

void Remembered::setUnits(Unit unit) { set("units", unit == Unit::Inch ? kInches : kCentimetres); }

QStringList Remembered::recent() const {
  QStringList standing;
  for (const QString& path : settings_.value("recent").toStringList())
    if (QFileInfo::exists(path)) standing << path;
  return standing;
}

void Remembered::opened(const QString& path) {
  QStringList all = settings_.value("recent").toStringList();
  const QString whole = QFileInfo(path).absoluteFilePath();
  all.removeAll(whole);
  all.prepend(whole);
  set("recent", all.mid(0, kMostRecent));
}

bool isDesktopDark() {
  const QPalette palette = QGuiApplication::palette();
  return palette.color(QPalette::WindowText).lightnessF() > palette.color(QPalette::Window).lightnessF();
}

}  // namespace armure
