// app/remembered.h
//
// What the program remembers of one sitting for the next: where the window was, light or dark, the units and the paper
// new orders begin with, the printer, and which orders were open. $XDG_CONFIG_HOME/armure/armure.ini, for its owner's
// eyes; what cannot be read is as if it were not there. What the user chooses once and for all stands in preferences.h.
#pragma once

#include <QByteArray>
#include <QSettings>
#include <QStringList>

#include "units/length.h"

namespace armure {

// Dark where the desktop is, or as it was chosen.
enum class Shade { AsDesktop, Light, Dark };

class Remembered {
 public:
  Remembered();

  QByteArray window() const { return settings_.value("window").toByteArray(); }  // QWidget::saveGeometry
  void setWindow(const QByteArray& geometry) { set("window", geometry); }

  Shade shade() const;
  void setShade(Shade shade);

  // At first as the country counts: inches in the United States and the United Kingdom, centimetres elsewhere.
  Unit units() const;
  void setUnits(Unit unit);

  // An id of the paper table; empty before one was chosen.
  std::string paper() const { return settings_.value("paper").toString().toStdString(); }
  void setPaper(const std::string& id) { set("paper", QString::fromStdString(id)); }

  QString printer() const { return settings_.value("printer").toString(); }
  void setPrinter(const QString& name) { set("printer", name); }

  // Files of orders, the one that was opened or saved last first; those that no longer stand are left out.
  QStringList recent() const;
  void opened(const QString& path);

 private:
  void set(const QString& key, const QVariant& value);

  QSettings settings_;
};

// Whether the desktop is dark: its text is lighter than its ground.
bool isDesktopDark();

}  // namespace armure
