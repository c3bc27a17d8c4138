// app/preferences.h
//
// What the user prefers, whatever the order: one small JSON file ($XDG_CONFIG_HOME/armure/preferences.json), written
// atomically; what cannot be read is as if it were not there.
#pragma once

#include <filesystem>
#include <optional>

#include "result.h"
#include "rules/rules.h"

namespace armure {

struct Preferences {
  bool newOrdersAsDrafted = false;  // else new orders keep the balanced pieces
  // Of the screen or projector pieces are cut from: dots for a millimetre, across and down; 0 where it was not
  // measured.
  double dotsAcross = 0, dotsDown = 0;

  Choices choicesOfNew() const;  // what an order begins with
};

std::filesystem::path preferencesFile();
Preferences readPreferences();
std::optional<Problem> writePreferences(const Preferences& preferences);

}  // namespace armure
