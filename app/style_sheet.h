// app/style_sheet.h
//
// How Qt's own controls look: one style sheet, made from the theme by role.
#pragma once

#include <QString>

#include "render/theme.h"

namespace armure {

QString themeStyleSheet(const Theme& theme);

}  // namespace armure
