#include "app/preferences.h"

#include <QDir>
#include <QStandardPaths>

#include "io/atomic_file.h"
#include "io/bounded_json.h"

namespace armure {
namespace {

constexpr double kFewestDots = 0.05, kMostDots = 100;  // for a millimetre: a projector far off, a fine screen

QString folder() { return QStandardPaths::writableLocation(QStandardPaths::GenericConfigLocation) + "/armure"; }

// The document as it stands: members this version does not know are kept.
Json document() {
  const Result<std::string> text = readFile(preferencesFile());
  if (!text.ok()) return Json::object();
  Result<BoundedJson> json = parseBounded(*text, preferencesFile().string());
  return json.ok() && json->doc.is_object() ? std::move(json).value().doc : Json::object();
}

}  // namespace

std::filesystem::path preferencesFile() { return (folder() + "/preferences.json").toStdString(); }

Choices Preferences::choicesOfNew() const {
  Choices choices = choicesOfNewOrders();
  if (newOrdersAsDrafted) choices["balance.keep"] = "drafted";
  return choices;
}

Preferences readPreferences() {
  const Json doc = document();
  Preferences p;
  p.newOrdersAsDrafted = doc.contains("newOrders") && doc["newOrders"] == "drafted";
  const auto dots = [&](const char* which) {
    const bool is = doc.contains("cuttingTable") && doc["cuttingTable"].is_object() &&
                    doc["cuttingTable"].contains(which) && doc["cuttingTable"][which].is_number();
    const double value = is ? doc["cuttingTable"][which].get<double>() : 0;
    return value > kFewestDots && value < kMostDots ? value : 0;
  };
  p.dotsAcross = dots("dotsAcross");
  p.dotsDown = dots("dotsDown");
  return p;
}

std::optional<Problem> writePreferences(const Preferences& preferences) {
  QDir().mkpath(folder());
  Json doc = document();
  doc["newOrders"] = preferences.newOrdersAsDrafted ? "drafted" : "balanced";
  if (preferences.dotsAcross > 0 && preferences.dotsDown > 0)
    doc["cuttingTable"] = {{"dotsAcross", preferences.dotsAcross}, {"dotsDown", preferences.dotsDown}};
  return writeFileAtomically(preferencesFile(), jsonText(doc), Readers::Owner);
}

}  // namespace armure
