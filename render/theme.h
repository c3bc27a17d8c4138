// render/theme.h
//
// Every colour and size of text of the program, by role, in one place; a light and a dark set. And the font that is
// built in.
#pragma once

#include <QColor>
#include <QFont>

namespace armure {

struct Theme {
  QColor linen;           // ground of the window
  QColor panel;           // bars and trays
  QColor panelLight;      // fields, the column on the right
  QColor paper;           // the table
  QColor ink;             // lines and text
  QColor secondInk;       // lesser text; at least 4.5 : 1 on every ground above
  QColor hairline;        // divisions
  QColor tape;            // the measuring tape
  QColor tint, tintDeep;  // alternate pieces
  QColor working;         // what is being worked on
  QColor onWorking;       // text on it
  QColor attention;       // what needs a look
  QColor attentionGround;
};

const Theme& lightTheme();
const Theme& darkTheme();

enum class TextSize { Small, Body, Heading, Title };

// Registers the built-in font; call once a QGuiApplication exists. Returns false when it could not be read.
bool loadFonts();
QFont uiFont(TextSize size = TextSize::Body, bool bold = false);

}  // namespace armure
