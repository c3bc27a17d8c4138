#include "render/theme.h"

#include <QFontDatabase>

static void initialiseResources() {
  Q_INIT_RESOURCE(fonts);
}  // resources of a static library; must stand outside namespaces

namespace armure {

const Theme& lightTheme() {
  static const Theme theme{.linen = 0xE9E2D3,
                           .panel = 0xF4EFE4,
                           .panelLight = 0xFBF7EE,
                           .paper = 0xFCFAF4,
                           .ink = 0x23272D,
                           .secondInk = 0x6A6358,
                           .hairline = 0xD3C9B6,
                           .tape = 0xF6E9B8,
                           .tint = 0xE8D9BC,
                           .tintDeep = 0xDDCBA8,
                           .working = 0x2D4F8B,
                           .onWorking = 0xFFFFFF,
                           .attention = 0xA83A24,
                           .attentionGround = 0xF7E6DF};
  return theme;
}

const Theme& darkTheme() {
  static const Theme theme{.linen = 0x1F1E1B,
                           .panel = 0x292723,
                           .panelLight = 0x2F2D28,
                           .paper = 0x24231F,
                           .ink = 0xECE6D8,
                           .secondInk = 0xB3AA99,
                           .hairline = 0x4A463D,
                           .tape = 0x5A5233,
                           .tint = 0x3D382D,
                           .tintDeep = 0x494234,
                           .working = 0x8FB0EC,
                           .onWorking = 0x14181F,
                           .attention = 0xF0937C,
                           .attentionGround = 0x44302A};
  return theme;
}

bool loadFonts() {
  initialiseResources();
  bool all = true;
  for (const char* file : {":/fonts/Lato-Regular.ttf", ":/fonts/Lato-Medium.ttf", ":/fonts/Lato-Bold.ttf"})
    all = QFontDatabase::addApplicationFont(file) >= 0 && all;
  return all;
}

QFont uiFont(TextSize size, bool bold) {
  QFont font("Lato");
  switch (size) {
    case TextSize::Small:
      font.setPixelSize(12);
      break;
    case TextSize::Body:
      font.setPixelSize(13);
      break;
    case TextSize::Heading:
      font.setPixelSize(15);
      break;
    case TextSize::Title:
      font.setPixelSize(18);
      break;
  }
  font.setWeight(bold ? QFont::Bold : QFont::Normal);
  // Without ligatures: shaping took a fifth of a frame. Scripts that need it are shaped all the same.
  font.setStyleStrategy(QFont::PreferNoShaping);
  return font;
}

}  // namespace armure
